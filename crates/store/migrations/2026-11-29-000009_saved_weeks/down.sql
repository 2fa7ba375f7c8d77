DROP TABLE saved_week;
