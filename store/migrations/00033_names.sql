-- +goose Up
-- Tables and columns get the names that the program uses.
ALTER TABLE sections RENAME TO classes;
ALTER TABLE cuts RENAME TO hand_chunks;
ALTER TABLE deeds RENAME TO activity;
ALTER TABLE house RENAME TO policy;
ALTER TABLE homeplans RENAME TO practice_plans;
ALTER TABLE instrument_kinds RENAME TO instrument_models;
ALTER TABLE pencils RENAME TO annotations;
ALTER TABLE placements RENAME TO octave_choices;
ALTER TABLE second_lines RENAME TO duet_parts;

ALTER TABLE activity RENAME section_id TO class_id;
ALTER TABLE lessons RENAME section_id TO class_id;
ALTER TABLE shares RENAME section_id TO class_id;
ALTER TABLE students RENAME section_id TO class_id;
ALTER TABLE activity RENAME deed TO action;
ALTER TABLE hand_chunks RENAME pieces TO chunks;
ALTER TABLE outlines RENAME pieces TO chunks;
ALTER TABLE demands RENAME things TO elements;
ALTER TABLE instrument_models RENAME kind TO model;
ALTER TABLE classes RENAME line TO duet_part;
ALTER TABLE students RENAME line TO duet_part;
ALTER TABLE standings RENAME rung TO tempo_step;
ALTER TABLE attempts RENAME press TO request_key;
ALTER TABLE home_tries RENAME press TO request_key;
ALTER TABLE card_answers RENAME press TO request_key;

-- Which formats there are is the program's to say.
ALTER TABLE sources DROP CONSTRAINT sources_format_check;

-- Keys and indexes are named after their tables.
-- +goose StatementBegin
DO $$
DECLARE
    item record;
    fresh text;
BEGIN
    FOR item IN
        SELECT 'ALTER TABLE ' || conrelid::regclass || ' RENAME CONSTRAINT ' || conname || ' TO ' AS does, conname AS name
        FROM pg_constraint WHERE connamespace = 'public'::regnamespace AND contype <> 'n' AND conrelid <> 0
        UNION ALL
        SELECT 'ALTER INDEX ' || c.relname || ' RENAME TO ', c.relname FROM pg_class c
        WHERE c.relnamespace = 'public'::regnamespace AND c.relkind = 'i'
            AND NOT EXISTS (SELECT FROM pg_constraint n WHERE n.conindid = c.oid)
        UNION ALL
        SELECT 'ALTER SEQUENCE ' || c.relname || ' RENAME TO ', c.relname FROM pg_class c
        WHERE c.relnamespace = 'public'::regnamespace AND c.relkind = 'S'
    LOOP
        fresh := item.name;
        fresh := regexp_replace(fresh, '^sections_', 'classes_');
        fresh := regexp_replace(fresh, '^cuts_', 'hand_chunks_');
        fresh := regexp_replace(fresh, '^deeds_', 'activity_');
        fresh := regexp_replace(fresh, '^house_', 'policy_');
        fresh := regexp_replace(fresh, '^homeplans_', 'practice_plans_');
        fresh := regexp_replace(fresh, '^instrument_kinds_', 'instrument_models_');
        fresh := regexp_replace(fresh, '^pencils_', 'annotations_');
        fresh := regexp_replace(fresh, '^placements_', 'octave_choices_');
        fresh := regexp_replace(fresh, '^second_lines_', 'duet_parts_');
        fresh := regexp_replace(fresh, '^met_', 'demands_');
        fresh := replace(replace(replace(fresh, '_section', '_class'), '_piece', '_chunk'), '_press', '_request_key');
        IF fresh <> item.name THEN
            EXECUTE item.does || fresh;
        END IF;
    END LOOP;
END $$;
-- +goose StatementEnd

-- What is written down in words of the program.
UPDATE activity SET action = replace(action, 'section', 'class') WHERE action LIKE '%section%';
UPDATE lessons SET plan = replace(plan::text, '"piece": ', '"chunk": ')::jsonb;
UPDATE practice_plans SET plan = replace(plan::text, '"piece": ', '"chunk": ')::jsonb;
UPDATE checkins SET due = replace(due::text, '"piece": ', '"chunk": ')::jsonb;
UPDATE routines SET steps = replace(steps::text, '"rungs": ', '"tempoSteps": ')::jsonb;
