-- LUTs of every format: how the file is written, the folder it came in, and what was found when it was inspected.
ALTER TABLE luts
DROP CONSTRAINT luts_dimensions_check;

ALTER TABLE luts
ALTER COLUMN dimensions TYPE text USING dimensions::text;

ALTER TABLE luts
ADD CONSTRAINT luts_dimensions_check CHECK (dimensions IN ('1', '3', 'sequence'));

ALTER TABLE luts
ADD COLUMN format text NOT NULL DEFAULT 'cube' CHECK (format IN ('cube', 'clf', 'hald', 'csv'));

ALTER TABLE luts
ADD COLUMN folder text NOT NULL DEFAULT '' CHECK (length(folder) <= 120);

ALTER TABLE luts
ADD COLUMN inspection jsonb;
