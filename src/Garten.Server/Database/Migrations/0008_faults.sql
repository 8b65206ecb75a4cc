-- What belongs together is held together by the database itself. Rows of before that contradict it are listed in the view below, never
-- changed; a constraint is validated where there are none.
alter table plant add constraint plant_with_place unique (id, place_id);
alter table population add constraint population_with_place unique (id, place_id);
alter table occurrence add constraint occurrence_with_plant_and_day unique (id, plant_id, event_date);
alter table population_count add constraint population_count_with_population unique (id, population_id);
alter table population_threat add constraint population_threat_with_population unique (id, population_id);

alter table determination
    add constraint determination_is_of_its_occurrence foreign key (occurrence_id, plant_id, event_date) references occurrence (id, plant_id, event_date) not valid,
    add constraint determination_is_at_the_plants_place foreign key (plant_id, place_id) references plant (id, place_id) not valid;
alter table plant add constraint plant_is_at_its_populations_place foreign key (population_id, place_id) references population (id, place_id) not valid;
alter table population_count add constraint population_count_corrects_its_own foreign key (supersedes, population_id) references population_count (id, population_id) not valid;
alter table population_threat add constraint population_threat_closes_its_own foreign key (closes, population_id) references population_threat (id, population_id) not valid;

-- Facts that contradict one another; written by racing devices before this was held.
create view contradiction as
    select 'determination' as kind, d.id, d.plant_id, 'The look that this name is of was at another plant or on another day.' as reason
    from determination d join occurrence o on o.id = d.occurrence_id where (o.plant_id, o.event_date) <> (d.plant_id, d.event_date)
    union all
    select 'determination', d.id, d.plant_id, 'This name was given at another place than the plant grows at.'
    from determination d join plant p on p.id = d.plant_id where p.place_id <> d.place_id
    union all
    select 'plant', p.id, p.id, 'This plant belongs to a population of another place.'
    from plant p join population q on q.id = p.population_id where q.place_id <> p.place_id
    union all
    select 'count', c.id, null, 'This count corrects one of another population.'
    from population_count c join population_count o on o.id = c.supersedes where o.population_id <> c.population_id
    union all
    select 'threat', t.id, null, 'This note closes a threat of another population.'
    from population_threat t join population_threat o on o.id = t.closes where o.population_id <> t.population_id;

do $$
declare
    it record;
begin
    for it in select conrelid::regclass as held, conname from pg_constraint where not convalidated and connamespace = current_schema()::regnamespace loop
        begin
            execute format('alter table %s validate constraint %I', it.held, it.conname);
        exception when foreign_key_violation then
            raise warning 'rows of % contradict %; see the view contradiction', it.held, it.conname;
        end;
    end loop;
end $$;

-- Which life of the database this is: a restore begins another one, so that devices can tell. Copies that were taken of it.
create table epoch (
    id       uuid        primary key,
    began_at timestamptz not null default now()
);
insert into epoch (id) values (gen_random_uuid());
create table backup_made (
    made_at timestamptz primary key
);
