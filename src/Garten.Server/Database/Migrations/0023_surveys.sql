-- A survey: what visits and plots add up to. It can be changed; the version says so. The versions of its protocol are facts.
create table survey (
    id          uuid        primary key,
    name        text        not null,
    question    text        not null,
    starts_on   date        not null,
    ends_on     date        not null check (ends_on >= starts_on),
    leader      uuid        not null references person,
    sought      text[]      not null,
    version     integer     not null default 1,
    recorded_at timestamptz not null
);

create table survey_place (
    survey_id uuid    not null references survey,
    place_id  uuid    not null references place,
    place     integer not null,
    primary key (survey_id, place_id)
);

create table survey_protocol (
    survey_id   uuid        not null references survey,
    version     integer     not null,
    protocol    jsonb       not null,
    recorded_at timestamptz not null,
    primary key (survey_id, version)
);

create table plot (
    id                 uuid             primary key,
    survey_id          uuid             not null references survey,
    place_id           uuid             not null references place,
    label              text             not null,
    is_permanent       boolean          not null,
    laid               text             not null,
    seed               bigint,
    latitude           double precision check (latitude between -90 and 90),
    longitude          double precision check (longitude between -180 and 180),
    uncertainty_metres double precision check (uncertainty_metres > 0),
    part               text             not null,
    compared_under     text             not null,
    square_metres      double precision check (square_metres > 0),
    finding            jsonb            not null,
    version            integer          not null default 1,
    constraint plot_is_called_once unique (survey_id, label),
    constraint plot_position_is_whole check ((latitude is null) = (longitude is null) and (latitude is null) = (uncertainty_metres is null))
);

-- What was recorded in a plot: a fact. One that corrects another one supersedes it; one by somebody who hasn't seen the first repeats it.
create table plot_record (
    id               uuid             primary key,
    number           bigint           generated always as identity unique,
    plot_id          uuid             not null references plot,
    visit_id         uuid             not null references site_visit,
    recorder         uuid             not null references person,
    protocol_version integer          not null,
    finds            jsonb            not null,
    layers           jsonb            not null,
    bare_ground      double precision check (bare_ground between 0 and 100),
    litter           double precision check (litter between 0 and 100),
    minutes          integer          check (minutes > 0),
    departure        text             not null,
    note             text             not null,
    repeats          uuid             references plot_record,
    supersedes       uuid             unique references plot_record,
    recorded_at      timestamptz      not null
);
create index plot_record_plot on plot_record (plot_id, number);
create index plot_record_visit on plot_record (visit_id);
-- A plot is entered once on a visit: again it is a correction, or an independent second.
create unique index plot_record_once on plot_record (plot_id, visit_id) where repeats is null and supersedes is null;

-- Sentences of a report in a person's own words.
create table survey_text (
    survey_id uuid not null references survey,
    key       text not null,
    text      text not null,
    primary key (survey_id, key)
);

-- Reports as they were kept: what comes later never changes them.
create table survey_report (
    id        uuid        primary key,
    number    bigint      generated always as identity unique,
    survey_id uuid        not null references survey,
    version   integer     not null,
    for_whom  text        not null,
    page      text        not null,
    kept_at   timestamptz not null,
    unique (survey_id, version)
);

create trigger survey_protocol_is_a_fact before update or delete on survey_protocol for each row execute function refuse_change();
create trigger plot_record_is_a_fact before update or delete on plot_record for each row execute function refuse_change();
create trigger survey_report_is_a_fact before update or delete on survey_report for each row execute function refuse_change();
