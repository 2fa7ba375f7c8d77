DROP TABLE region_choice;
DROP TABLE tape_reading;
DROP TABLE round;
DROP TABLE client;
