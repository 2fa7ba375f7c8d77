DROP TABLE girth_constant;
