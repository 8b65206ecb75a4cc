-- A visit to a place: who was there, when, what for. It can be changed; the version says so. Its list and what was said at its end are facts.
create table site_visit (
    id          uuid        primary key,
    number      bigint      generated always as identity unique,
    place_id    uuid        not null references place,
    visited_on  date        not null,
    started_at  text        not null check (started_at = '' or started_at ~ '^[0-2][0-9]:[0-5][0-9]$'),
    purpose     text        not null,
    weather     text        not null,
    pauses      jsonb       not null,
    safety      jsonb,
    version     integer     not null default 1,
    recorded_at timestamptz not null
);
create index site_visit_listed on site_visit (visited_on, started_at, id);
create index site_visit_at_place on site_visit (place_id, visited_on, started_at, id);

create table site_visit_person (
    visit_id  uuid    not null references site_visit,
    person_id uuid    not null references person,
    place     integer not null,
    primary key (visit_id, person_id)
);

-- What was found. A line that stands for a plant takes the plant's name; a line that corrects another one supersedes it.
create table list_line (
    id                 uuid             primary key,
    number             bigint           generated always as identity unique,
    visit_id           uuid             not null references site_visit,
    taxon              text             not null check (length(taxon) <= 200),
    unnamed            text             not null check (length(unnamed) <= 200),
    plant_id           uuid             references plant,
    compartment        text             not null,
    recorder           uuid             not null references person,
    at                 text             not null,
    details            jsonb            not null,
    latitude           double precision check (latitude between -90 and 90),
    longitude          double precision check (longitude between -180 and 180),
    uncertainty_metres double precision check (uncertainty_metres > 0),
    supersedes         uuid             references list_line,
    recorded_at        timestamptz      not null,
    constraint list_line_is_called check (taxon <> '' or unnamed <> ''),
    constraint list_line_position_is_whole check ((latitude is null) = (longitude is null) and (latitude is null) = (uncertainty_metres is null))
);
create index list_line_visit on list_line (visit_id, number);
create index list_line_plant on list_line (plant_id) where plant_id is not null;
create index list_line_supersedes on list_line (supersedes) where supersedes is not null;

create table list_line_withdrawal (
    line_id     uuid        primary key references list_line,
    recorded_at timestamptz not null
);

-- What was said at the end: said again, the newest holds.
create table site_visit_closing (
    id          uuid        primary key,
    number      bigint      generated always as identity unique,
    visit_id    uuid        not null references site_visit,
    closing     jsonb       not null,
    recorded_at timestamptz not null
);
create index site_visit_closing_visit on site_visit_closing (visit_id, number);

create trigger list_line_is_a_fact before update or delete on list_line for each row execute function refuse_change();
create trigger list_line_withdrawal_is_a_fact before update or delete on list_line_withdrawal for each row execute function refuse_change();
create trigger site_visit_closing_is_a_fact before update or delete on site_visit_closing for each row execute function refuse_change();

-- The lines that hold, each with the name that it has now: neither withdrawn nor superseded by one that isn't withdrawn.
create view list_line_now as
    select l.id, l.number, l.visit_id, v.place_id, v.visited_on, l.recorder, l.compartment, l.unnamed, l.plant_id, l.at, l.details, l.latitude, l.longitude, l.uncertainty_metres,
        case when l.plant_id is null then l.taxon when cardinality(n.names) = 1 then n.names[1] else '' end as name
    from list_line l
    join site_visit v on v.id = l.visit_id
    left join plant_now n on n.plant_id = l.plant_id
    where not exists (select from list_line_withdrawal w where w.line_id = l.id)
        and not exists (
            select from list_line o where o.supersedes = l.id and not exists (select from list_line_withdrawal w where w.line_id = o.id));
