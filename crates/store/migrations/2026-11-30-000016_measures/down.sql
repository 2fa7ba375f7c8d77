ALTER TABLE account DROP COLUMN measures;
