-- What makes a taxon plausible at a place: its grid cell, how high it lies, what habitats it has.
alter table place
    add column cell text not null default '' check (length(cell) <= 20),
    add column elevation_metres double precision check (elevation_metres between -500 and 9000),
    add column habitats text[] not null default '{}';

-- A name that was found by sifting has no key and no trail.
alter table determination alter column start_key drop not null;
