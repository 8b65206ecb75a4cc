-- The ground of a place: boundary, parts, ways in, hazards, leave to record. It can be changed; the version says so.
create table place_ground (
    place_id uuid    primary key references place,
    ground   jsonb   not null,
    version  integer not null default 1
);

-- What maps are drawn on: features with a kind (land, relief, stream, water, wood, sand, path, name), as GeoJSON.
create table base_map (
    id       text        primary key,
    features jsonb       not null,
    added_at timestamptz not null default now()
);

create index list_line_positions on list_line (visit_id) where latitude is not null;
