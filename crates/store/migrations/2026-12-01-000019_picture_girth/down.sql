DROP TABLE picture_girth;
