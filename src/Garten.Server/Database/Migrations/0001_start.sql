-- A flora is published as an immutable pack; records keep the version they were made with.
create table flora (
    id           text        not null,
    version      integer     not null check (version >= 1),
    content_hash text        not null,
    pack         jsonb       not null,
    published_at timestamptz not null default now(),
    primary key (id, version)
);

-- A version of a key: what it says is named by its hash and never changes.
create table key_version (
    hash        text        primary key check (hash ~ '^[0-9a-f]{64}$'),
    title       text        not null,
    title_plain text        not null,
    version     integer     not null check (version >= 1),
    content     jsonb       not null,
    source_text text        not null,
    added_at    timestamptz not null,
    unique (title_plain, version)
);

-- Names of people stand here alone, so that they can be changed or erased.
create table person (
    id      uuid    primary key,
    name    text    not null check (length(name) between 1 and 200),
    version integer not null default 1
);

create table place (
    id                 uuid             primary key,
    name               text             not null check (length(name) between 1 and 200),
    locality           text             not null,
    latitude           double precision not null check (latitude between -90 and 90),
    longitude          double precision not null check (longitude between -180 and 180),
    uncertainty_metres double precision not null check (uncertainty_metres > 0),
    caution            text             not null,
    version            integer          not null default 1
);

create table plant (
    id       uuid    primary key,
    place_id uuid    not null references place,
    label    text    not null,
    version  integer not null default 1
);
create index plant_place on plant (place_id);

-- A plant seen on a day.
create table occurrence (
    id          uuid primary key,
    plant_id    uuid not null references plant,
    event_date  date not null,
    recorded_by uuid not null references person
);
create index occurrence_plant on occurrence (plant_id);

create table determination (
    id            uuid        primary key,
    number        bigint      generated always as identity unique,
    occurrence_id uuid        not null references occurrence,
    plant_id      uuid        not null references plant,
    place_id      uuid        not null references place,
    event_date    date        not null,
    identified_by uuid        not null references person,
    recorded_at   timestamptz not null,
    name          text        not null,
    names         text[]      not null check (cardinality(names) >= 1),
    start_key     text        not null references key_version,
    trail         jsonb       not null,
    note          text        not null
);
create index determination_newest on determination (event_date desc, number desc);
create index determination_plant on determination (plant_id, number);
create index determination_place on determination (place_id, event_date desc, number desc);
create index determination_names on determination using gin (names);

-- Commands that were carried out; the same one sent again is known by its id.
create table command (
    id          uuid        primary key,
    kind        text        not null,
    body_hash   text        not null,
    result      jsonb       not null,
    received_at timestamptz not null
);

-- Facts are appended, never edited: a correction is a new fact.
create function refuse_change() returns trigger language plpgsql as $$
begin
    raise exception 'rows of % are appended, never changed', tg_table_name using errcode = 'restrict_violation';
end $$;

create trigger key_version_is_a_fact before update or delete on key_version for each row execute function refuse_change();
create trigger occurrence_is_a_fact before update or delete on occurrence for each row execute function refuse_change();
create trigger determination_is_a_fact before update or delete on determination for each row execute function refuse_change();
create trigger command_is_a_fact before update or delete on command for each row execute function refuse_change();
create trigger flora_is_a_fact before update or delete on flora for each row execute function refuse_change();
