-- A population: a patch of one taxon that is counted year by year.
create table population (
    id       uuid primary key,
    place_id uuid not null references place,
    name     text not null check (length(name) between 1 and 200),
    taxon    text not null check (length(taxon) between 1 and 200),
    bounds   text not null
);
create index population_place on population (place_id);

-- A plant may be tagged: then it has a day, a position of its own, and words to find it again by. These can be changed; the version says so.
alter table plant
    add column tagged_on date,
    add column latitude double precision check (latitude between -90 and 90),
    add column longitude double precision check (longitude between -180 and 180),
    add column uncertainty_metres double precision check (uncertainty_metres > 0),
    add column finding jsonb not null default '{"landmark":"","bearingDegrees":null,"distanceMetres":null,"note":""}',
    add column population_id uuid references population,
    add constraint plant_position_is_whole check ((latitude is null) = (longitude is null) and (latitude is null) = (uncertainty_metres is null));
create index plant_population on plant (population_id) where population_id is not null;

-- How a plant was found later: states and sexes are dated, nothing is overwritten.
create table plant_visit (
    id          uuid        primary key,
    number      bigint      generated always as identity unique,
    plant_id    uuid        not null references plant,
    visited_on  date        not null,
    state       text        not null check (state in ('alive', 'browsed', 'cut', 'dead', 'notRefound')),
    phases      jsonb       not null,
    sexes       jsonb       not null,
    note        text        not null,
    visitor     uuid        not null references person,
    recorded_at timestamptz not null
);
create index plant_visit_plant on plant_visit (plant_id, visited_on, number);

create table population_count (
    id            uuid        primary key,
    number        bigint      generated always as identity unique,
    population_id uuid        not null references population,
    counted_on    date        not null,
    unit          text        not null check (unit in ('individuals', 'shoots', 'stems')),
    counted       integer     not null check (counted >= 0),
    note          text        not null,
    counter       uuid        not null references person,
    supersedes    uuid        references population_count,
    recorded_at   timestamptz not null
);
create index population_count_population on population_count (population_id, counted_on, number);

-- A threat stands until a later note says how it was dealt with.
create table population_threat (
    id            uuid        primary key,
    population_id uuid        not null references population,
    noted_on      date        not null,
    text          text        not null check (length(text) between 1 and 2000),
    act_by        date,
    closes        uuid        references population_threat,
    recorded_at   timestamptz not null
);
create index population_threat_population on population_threat (population_id);

create trigger plant_visit_is_a_fact before update or delete on plant_visit for each row execute function refuse_change();
create trigger population_count_is_a_fact before update or delete on population_count for each row execute function refuse_change();
create trigger population_threat_is_a_fact before update or delete on population_threat for each row execute function refuse_change();
