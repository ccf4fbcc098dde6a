-- Several files are imported side by side: their shots stand in the order in which the files were chosen.
ALTER TABLE shots
ADD COLUMN import_order bigint;
