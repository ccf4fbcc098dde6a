-- Single LUTs and renders are removed as projects are: they can be brought back for some days.
ALTER TABLE luts
ADD COLUMN removed_at timestamptz;

ALTER TABLE renders
ADD COLUMN removed_at timestamptz;
