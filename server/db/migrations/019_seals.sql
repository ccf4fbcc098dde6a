-- How a linked original looked when it was last known to be the right one; NULL for media of the store's own.
ALTER TABLE media
ADD COLUMN seal jsonb;
