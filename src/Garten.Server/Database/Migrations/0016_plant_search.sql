-- Plants are searched for any piece of their label or names. With trigrams that reads an index; where a database hasn't the extension (it comes with
-- Debian's postgresql) the search reads the rows, as before.
do $$
begin
    create extension if not exists pg_trgm;
    create index plant_now_searched on plant_now using gin (searched gin_trgm_ops) with (fastupdate = off);
exception when insufficient_privilege or undefined_file or feature_not_supported then
    raise notice 'pg_trgm is not available: plants are searched row by row';
end $$;
