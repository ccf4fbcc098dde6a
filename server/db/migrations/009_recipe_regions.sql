-- Regions of recipes: those that carry some of the steps, to be placed on the next picture.
ALTER TABLE recipes
ADD COLUMN regions jsonb NOT NULL DEFAULT '[]';
