DROP TABLE half_imported;
