-- The units in which somebody reads and types, a JSON document; null is centimetres and kilograms.
ALTER TABLE account ADD COLUMN measures TEXT;
