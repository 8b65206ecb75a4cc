-- Scanned maps that are laid under the drawn one: north is up, two opposite corners say where they lie.
create table map_sheet (
    id          uuid             primary key,
    name        text             not null check (length(name) between 1 and 200),
    south       double precision not null check (south between -90 and 90),
    west        double precision not null check (west between -180 and 180),
    north       double precision not null check (north between -90 and 90 and north > south),
    east        double precision not null check (east between -180 and 180 and east > west),
    media_type  text             not null,
    content     bytea            not null,
    recorded_at timestamptz      not null
);
alter table map_sheet alter column content set storage external;
