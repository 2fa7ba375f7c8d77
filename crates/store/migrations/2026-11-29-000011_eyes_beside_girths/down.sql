DROP TABLE eye_beside_girths;
