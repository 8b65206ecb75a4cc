-- Any stage of a plant can be counted, and a count can be checked blind: of plants whose place was known so many were found.
alter table population_count drop constraint population_count_unit_check;
alter table population_count
    add constraint population_count_unit_check
        check (unit in ('individuals', 'shoots', 'stems', 'seedlings', 'rosettes', 'flowering', 'tufts', 'squareMetres')),
    add column known integer not null default 0 check (known >= 0),
    add column found integer not null default 0 check (found >= 0 and found <= known);
