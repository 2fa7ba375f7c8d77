DROP TABLE eye_answer;
DROP TABLE eye_sitting;
