DROP TABLE rating_repeat;
DROP TABLE rating;
DROP TABLE outline;
DROP TABLE photo;
