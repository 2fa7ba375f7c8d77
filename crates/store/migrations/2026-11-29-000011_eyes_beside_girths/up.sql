-- What raters' standings say beside the tape, over the whole practice; worked out anew every day.
CREATE TABLE eye_beside_girths (
    account_id TEXT PRIMARY KEY NOT NULL REFERENCES account (id) ON DELETE CASCADE,
    girths INTEGER NOT NULL CHECK (girths > 0),
    weight DOUBLE NOT NULL CHECK (weight > 0),
    variance DOUBLE NOT NULL
);
