DROP TABLE camera_set_up;
DROP TABLE picture_ask;
