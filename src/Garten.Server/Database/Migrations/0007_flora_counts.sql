-- What the list of floras tells: kept beside the pack, which may be many megabytes and isn't opened for it.
alter table flora
    add column name       text    generated always as (pack ->> 'name') stored,
    add column taxa       integer generated always as (jsonb_array_length(pack -> 'taxa')) stored,
    add column characters integer generated always as (coalesce(jsonb_array_length(pack -> 'table' -> 'characters'), 0)) stored;
