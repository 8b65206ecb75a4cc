-- A place that turns out to be another one: what was recorded there stands at that one from then on, under its ids, and what still comes
-- for it goes there too. What moved is noted, so that the two can be separated again.
alter table place add column merged_into uuid references place check (merged_into <> id);
create index place_merged on place (merged_into) where merged_into is not null;
create table place_moved (
    place_id uuid not null references place,
    what     text not null check (what in ('place', 'plant', 'population', 'visit', 'plot', 'survey', 'survey beside')),
    id       uuid not null,
    primary key (place_id, what, id)
);

-- A name is given where its plant stands, and a plant of a population stands where that does.
alter table determination drop constraint determination_is_at_the_plants_place;
alter table determination add constraint determination_is_at_the_plants_place
    foreign key (plant_id, place_id) references plant (id, place_id) on update cascade not valid;
alter table plant drop constraint plant_is_at_its_populations_place;
alter table plant add constraint plant_is_at_its_populations_place
    foreign key (population_id, place_id) references population (id, place_id) on update cascade not valid;
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

-- The fact of a name stays as it was: where its plant stands is all that merging changes of it.
create function refuse_change_but_of_place() returns trigger language plpgsql as $$
begin
    if current_setting('garten.erasing', true) = 'on' then
        return case when tg_op = 'DELETE' then old else new end;
    end if;
    if tg_op = 'UPDATE' and current_setting('garten.merging', true) = 'on' and to_jsonb(new) - 'place_id' = to_jsonb(old) - 'place_id' then
        return new;
    end if;
    raise exception 'rows of % are appended, never changed', tg_table_name using errcode = 'restrict_violation';
end $$;
drop trigger determination_is_a_fact on determination;
create trigger determination_is_a_fact before update or delete on determination for each row execute function refuse_change_but_of_place();

-- What is written for a place in the moment in which it is merged waits for that, and stands at the other one.
create function stands_where_merged() returns trigger language plpgsql as $$
declare
    now_at uuid;
begin
    select merged_into into now_at from place where id = new.place_id for key share;
    if now_at is not null then
        new.place_id := now_at;
    end if;
    return new;
end $$;
create trigger plant_stands before insert or update of place_id on plant for each row execute function stands_where_merged();
create trigger population_stands before insert or update of place_id on population for each row execute function stands_where_merged();
create trigger determination_stands before insert on determination for each row execute function stands_where_merged();
create trigger site_visit_stands before insert or update of place_id on site_visit for each row execute function stands_where_merged();
create trigger plot_stands before insert or update of place_id on plot for each row execute function stands_where_merged();

-- Makes one place a part of another that stands by itself; answers with the plants that stand elsewhere now.
create function merge_place(ended uuid, kept uuid) returns setof uuid language plpgsql as $$
begin
    return query select id from plant where place_id = ended;
    insert into place_moved (place_id, what, id)
        select ended, 'place', id from place where merged_into = ended
        union all select ended, 'plant', id from plant where place_id = ended
        union all select ended, 'population', id from population where place_id = ended
        union all select ended, 'visit', id from site_visit where place_id = ended
        union all select ended, 'plot', id from plot where place_id = ended
        union all select ended, case when exists (select from survey_place o where o.survey_id = s.survey_id and o.place_id = kept)
            then 'survey beside' else 'survey' end, s.survey_id from survey_place s where s.place_id = ended
        on conflict do nothing;
    update place set merged_into = kept where id = ended or merged_into = ended;
    -- What is warned of at the one is warned of at the other; after a separation too.
    update place k set caution = trim(k.caution || ' ' || e.caution), version = k.version + 1
        from place e where k.id = kept and e.id = ended and position(lower(e.caution) in lower(k.caution)) = 0;
    insert into place_ground (place_id, ground)
        select kept, g.ground || '{"outline": [], "parts": [], "entrances": [], "leave": null}' from place_ground g
        where g.place_id = ended and jsonb_array_length(g.ground->'hazards') > 0
        on conflict (place_id) do update set version = place_ground.version + 1,
            ground = jsonb_set(place_ground.ground, '{hazards}', (place_ground.ground->'hazards') || (excluded.ground->'hazards'));
    perform set_config('garten.merging', 'on', true);
    update population set place_id = kept where place_id = ended;
    update plant set place_id = kept where place_id = ended;
    update site_visit set place_id = kept where place_id = ended;
    update plot set place_id = kept where place_id = ended;
    update survey_place s set place_id = kept where place_id = ended
        and not exists (select from survey_place o where o.survey_id = s.survey_id and o.place_id = kept);
    delete from survey_place where place_id = ended;
    perform set_config('garten.merging', 'off', true);
end $$;

-- Lets a place stand by itself again, with what it had and what is still where it was moved to.
create function separate_place(apart uuid) returns setof uuid language plpgsql as $$
declare
    whole uuid := (select merged_into from place where id = apart);
begin
    update place set merged_into = null where id = apart;
    update place set merged_into = apart where merged_into = whole and id in (select id from place_moved where place_id = apart and what = 'place');
    perform set_config('garten.merging', 'on', true);
    update population set place_id = apart where place_id = whole and id in (select id from place_moved where place_id = apart and what = 'population');
    -- A plant of a population stands where that does.
    update plant p set place_id = apart where place_id = whole and id in (select id from place_moved where place_id = apart and what = 'plant')
        and not exists (select from population q where q.id = p.population_id and q.place_id <> apart);
    update site_visit set place_id = apart where place_id = whole and id in (select id from place_moved where place_id = apart and what = 'visit');
    update plot set place_id = apart where place_id = whole and id in (select id from place_moved where place_id = apart and what = 'plot');
    insert into survey_place (survey_id, place_id, place)
        select s.id, apart, coalesce((select max(place) + 1 from survey_place o where o.survey_id = s.id), 1)
        from survey s where s.id in (select id from place_moved where place_id = apart and what in ('survey', 'survey beside'))
        on conflict do nothing;
    delete from survey_place s where place_id = whole and survey_id in (select id from place_moved where place_id = apart and what = 'survey')
        and not exists (select from plot p where p.survey_id = s.survey_id and p.place_id = whole);
    perform set_config('garten.merging', 'off', true);
    -- What was moved on with a later merging is its own again there too.
    delete from place_moved m using place_moved own where own.place_id = apart and m.what = own.what and m.id = own.id;
    return query select id from plant where place_id = apart;
end $$;
