-- Each try of a piece of work has a token: only the try that holds it may report, commit or end the work, so that a
-- process that stood still for long does nothing twice.
ALTER TABLE work
ADD COLUMN attempt text;

ALTER TABLE renders
ADD COLUMN attempt text;
