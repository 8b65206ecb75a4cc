-- What is agreed of a survey besides its protocol (calendar, table of grades, licence), and who works at it.
alter table survey add terms jsonb not null default '{"rounds": []}';

create table survey_person (
    survey_id uuid    not null references survey,
    person_id uuid    not null references person,
    place     integer not null,
    primary key (survey_id, person_id)
);
