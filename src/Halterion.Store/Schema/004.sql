-- For setting stations; only where someone chose to tell it.
ALTER TABLE person ADD COLUMN stature_cm INTEGER CHECK (stature_cm BETWEEN 100 AND 230);
