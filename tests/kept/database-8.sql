CREATE FUNCTION public.attention_follows() RETURNS trigger
    LANGUAGE plpgsql
    AS $$ BEGIN
        INSERT INTO attention (company, property, name, updated_at, archived)
          VALUES (NEW.company, NEW.id, NEW.name, NEW.updated_at, NEW.archived_at IS NOT NULL)
          ON CONFLICT (company, property) DO UPDATE
          SET name = excluded.name, updated_at = excluded.updated_at, archived = excluded.archived;
        RETURN NULL;
      END $$;
CREATE TABLE public.attention (
    company uuid NOT NULL,
    property uuid NOT NULL,
    astray integer DEFAULT 0 NOT NULL,
    faults integer DEFAULT 0 NOT NULL,
    findings integer DEFAULT 0 NOT NULL,
    creeping integer DEFAULT 0 NOT NULL,
    creeps_on date,
    temporary integer DEFAULT 0 NOT NULL,
    temporary_until date,
    quotes integer DEFAULT 0 NOT NULL,
    quoted_on date,
    visits integer DEFAULT 0 NOT NULL,
    last_visit timestamp with time zone,
    visit_due date,
    latitude_deg double precision,
    longitude_deg double precision,
    name text NOT NULL,
    updated_at timestamp with time zone NOT NULL,
    archived boolean NOT NULL,
    folded text GENERATED ALWAYS AS ((lower((name COLLATE "und-x-icu")) COLLATE "C")) STORED COLLATE pg_catalog."C"
);
ALTER TABLE ONLY public.attention FORCE ROW LEVEL SECURITY;
CREATE TABLE public.attention_wanted (
    number bigint NOT NULL,
    company uuid NOT NULL,
    property uuid NOT NULL,
    noted_at timestamp with time zone DEFAULT now() NOT NULL
);
ALTER TABLE ONLY public.attention_wanted FORCE ROW LEVEL SECURITY;
ALTER TABLE public.attention_wanted ALTER COLUMN number ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.attention_wanted_number_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.attention_words (
    company uuid NOT NULL,
    property uuid NOT NULL,
    words tsvector NOT NULL
);
ALTER TABLE ONLY public.attention_words FORCE ROW LEVEL SECURITY;
CREATE TABLE public.batches (
    id uuid NOT NULL,
    property uuid NOT NULL,
    company uuid NOT NULL,
    author uuid NOT NULL,
    revision integer NOT NULL,
    author_name text NOT NULL,
    device text NOT NULL,
    at timestamp with time zone NOT NULL,
    received_at timestamp with time zone DEFAULT now() NOT NULL,
    commands jsonb NOT NULL,
    writes jsonb NOT NULL,
    undoes uuid,
    schema_version integer NOT NULL
);
ALTER TABLE ONLY public.batches FORCE ROW LEVEL SECURITY;
CREATE TABLE public.companies (
    id uuid NOT NULL,
    name text NOT NULL
);
CREATE TABLE public.company_records (
    company uuid NOT NULL,
    kind text NOT NULL,
    revision integer NOT NULL,
    author uuid NOT NULL,
    updated_at timestamp with time zone DEFAULT now() NOT NULL,
    record jsonb NOT NULL,
    CONSTRAINT company_records_revision_check CHECK ((revision > 0))
);
ALTER TABLE ONLY public.company_records FORCE ROW LEVEL SECURITY;
CREATE TABLE public.facts (
    company uuid NOT NULL,
    property uuid NOT NULL,
    kind text NOT NULL,
    id text NOT NULL,
    owner_kind text,
    owner text,
    author uuid NOT NULL,
    at timestamp with time zone NOT NULL,
    received_at timestamp with time zone DEFAULT now() NOT NULL,
    schema_version integer NOT NULL,
    fact jsonb NOT NULL
);
ALTER TABLE ONLY public.facts FORCE ROW LEVEL SECURITY;
CREATE TABLE public.kysely_migration (
    name character varying(255) NOT NULL,
    "timestamp" character varying(255) NOT NULL
);
CREATE TABLE public.kysely_migration_lock (
    id character varying(255) NOT NULL,
    is_locked integer DEFAULT 0 NOT NULL
);
CREATE TABLE public.markers (
    name text NOT NULL,
    at timestamp with time zone DEFAULT now() NOT NULL
);
CREATE TABLE public.part_lives (
    company uuid NOT NULL,
    property uuid NOT NULL,
    lives jsonb NOT NULL
);
ALTER TABLE ONLY public.part_lives FORCE ROW LEVEL SECURITY;
CREATE TABLE public.pictures (
    property uuid NOT NULL,
    sha256 text NOT NULL,
    company uuid NOT NULL,
    author uuid NOT NULL,
    received_at timestamp with time zone DEFAULT now() NOT NULL,
    kind text NOT NULL,
    bytes bytea NOT NULL,
    CONSTRAINT pictures_sha256_check CHECK ((sha256 ~ '^[0-9a-f]{64}$'::text))
);
ALTER TABLE ONLY public.pictures FORCE ROW LEVEL SECURITY;
CREATE TABLE public.procedures (
    company uuid NOT NULL,
    id text NOT NULL,
    revision integer NOT NULL,
    author uuid NOT NULL,
    updated_at timestamp with time zone DEFAULT now() NOT NULL,
    procedure jsonb NOT NULL,
    CONSTRAINT procedures_id_check CHECK ((id ~ '^[a-z][a-z0-9_]{0,39}$'::text)),
    CONSTRAINT procedures_revision_check CHECK ((revision > 0))
);
ALTER TABLE ONLY public.procedures FORCE ROW LEVEL SECURITY;
CREATE TABLE public.properties (
    id uuid NOT NULL,
    company uuid NOT NULL,
    author uuid NOT NULL,
    name text NOT NULL,
    revision integer NOT NULL,
    schema_version integer NOT NULL,
    site jsonb NOT NULL,
    controllers integer NOT NULL,
    stations integer NOT NULL,
    created_at timestamp with time zone DEFAULT now() NOT NULL,
    updated_at timestamp with time zone DEFAULT now() NOT NULL,
    archived_at timestamp with time zone,
    CONSTRAINT properties_revision_check CHECK ((revision >= 0))
);
ALTER TABLE ONLY public.properties FORCE ROW LEVEL SECURITY;
CREATE TABLE public.snapshots (
    property uuid NOT NULL,
    revision integer NOT NULL,
    site jsonb NOT NULL,
    company uuid NOT NULL,
    schema_version integer NOT NULL
);
ALTER TABLE ONLY public.snapshots FORCE ROW LEVEL SECURITY;
CREATE TABLE public.users (
    id uuid NOT NULL,
    company uuid NOT NULL,
    name text NOT NULL
);
ALTER TABLE ONLY public.users FORCE ROW LEVEL SECURITY;
INSERT INTO public.attention VALUES ('00000000-0000-7000-8000-000000000001', '0198f2a0-4b7e-7c31-9d52-6a1f0c3e5b99', 0, 0, 0, 0, NULL, 0, NULL, 0, NULL, 2, '2026-03-02 10:00:00+00', '2027-03-02', NULL, NULL, 'Small court', '2026-11-28 18:06:15.242+00', false, DEFAULT);
INSERT INTO public.attention_words VALUES ('00000000-0000-7000-8000-000000000001', '0198f2a0-4b7e-7c31-9d52-6a1f0c3e5b99', '''51'':9 ''a'':3 ''b1'':5 ''b2'':6 ''back'':10 ''bed'':8 ''cab'':7 ''court'':2,4 ''lawn'':11 ''small'':1');
INSERT INTO public.batches VALUES ('0198f2a0-0000-7000-8000-000000000001', '0198f2a0-4b7e-7c31-9d52-6a1f0c3e5b99', '00000000-0000-7000-8000-000000000001', '00000000-0000-7000-8000-000000000002', 1, 'Kept', 'kept', '2026-03-01 10:00:00+00', '2026-11-28 18:06:13.749319+00', '[{"do": "set", "id": "one", "in": "stations", "field": "name", "value": "Bed 1"}]', '[{"path": ["stations", "one", "name"], "after": "Bed 1", "before": "Front lawn"}]', NULL, 1);
INSERT INTO public.batches VALUES ('0198f2a0-0000-7000-8000-000000000002', '0198f2a0-4b7e-7c31-9d52-6a1f0c3e5b99', '00000000-0000-7000-8000-000000000001', '00000000-0000-7000-8000-000000000002', 2, 'Kept', 'kept', '2026-03-01 10:00:00+00', '2026-11-28 18:06:13.783737+00', '[{"do": "set", "id": "one", "in": "stations", "field": "name", "value": "Bed 2"}]', '[{"path": ["stations", "one", "name"], "after": "Bed 2", "before": "Bed 1"}]', NULL, 1);
INSERT INTO public.batches VALUES ('0198f2a0-0000-7000-8000-000000000003', '0198f2a0-4b7e-7c31-9d52-6a1f0c3e5b99', '00000000-0000-7000-8000-000000000001', '00000000-0000-7000-8000-000000000002', 3, 'Kept', 'kept', '2026-03-01 10:00:00+00', '2026-11-28 18:06:13.801589+00', '[{"do": "set", "id": "one", "in": "stations", "field": "name", "value": "Bed 3"}]', '[{"path": ["stations", "one", "name"], "after": "Bed 3", "before": "Bed 2"}]', NULL, 1);
INSERT INTO public.batches VALUES ('0198f2a0-0000-7000-8000-000000000004', '0198f2a0-4b7e-7c31-9d52-6a1f0c3e5b99', '00000000-0000-7000-8000-000000000001', '00000000-0000-7000-8000-000000000002', 4, 'Kept', 'kept', '2026-03-01 10:00:00+00', '2026-11-28 18:06:13.820211+00', '[{"do": "set", "id": "one", "in": "stations", "field": "name", "value": "Bed 4"}]', '[{"path": ["stations", "one", "name"], "after": "Bed 4", "before": "Bed 3"}]', NULL, 1);
INSERT INTO public.batches VALUES ('0198f2a0-0000-7000-8000-000000000005', '0198f2a0-4b7e-7c31-9d52-6a1f0c3e5b99', '00000000-0000-7000-8000-000000000001', '00000000-0000-7000-8000-000000000002', 5, 'Kept', 'kept', '2026-03-01 10:00:00+00', '2026-11-28 18:06:13.836224+00', '[{"do": "set", "id": "one", "in": "stations", "field": "name", "value": "Bed 5"}]', '[{"path": ["stations", "one", "name"], "after": "Bed 5", "before": "Bed 4"}]', NULL, 1);
INSERT INTO public.batches VALUES ('0198f2a0-0000-7000-8000-000000000006', '0198f2a0-4b7e-7c31-9d52-6a1f0c3e5b99', '00000000-0000-7000-8000-000000000001', '00000000-0000-7000-8000-000000000002', 6, 'Kept', 'kept', '2026-03-01 10:00:00+00', '2026-11-28 18:06:13.852141+00', '[{"do": "set", "id": "one", "in": "stations", "field": "name", "value": "Bed 6"}]', '[{"path": ["stations", "one", "name"], "after": "Bed 6", "before": "Bed 5"}]', NULL, 1);
INSERT INTO public.batches VALUES ('0198f2a0-0000-7000-8000-000000000007', '0198f2a0-4b7e-7c31-9d52-6a1f0c3e5b99', '00000000-0000-7000-8000-000000000001', '00000000-0000-7000-8000-000000000002', 7, 'Kept', 'kept', '2026-03-01 10:00:00+00', '2026-11-28 18:06:13.891133+00', '[{"do": "set", "id": "one", "in": "stations", "field": "name", "value": "Bed 7"}]', '[{"path": ["stations", "one", "name"], "after": "Bed 7", "before": "Bed 6"}]', NULL, 1);
INSERT INTO public.batches VALUES ('0198f2a0-0000-7000-8000-000000000008', '0198f2a0-4b7e-7c31-9d52-6a1f0c3e5b99', '00000000-0000-7000-8000-000000000001', '00000000-0000-7000-8000-000000000002', 8, 'Kept', 'kept', '2026-03-01 10:00:00+00', '2026-11-28 18:06:13.931814+00', '[{"do": "set", "id": "one", "in": "stations", "field": "name", "value": "Bed 8"}]', '[{"path": ["stations", "one", "name"], "after": "Bed 8", "before": "Bed 7"}]', NULL, 1);
INSERT INTO public.batches VALUES ('0198f2a0-0000-7000-8000-000000000009', '0198f2a0-4b7e-7c31-9d52-6a1f0c3e5b99', '00000000-0000-7000-8000-000000000001', '00000000-0000-7000-8000-000000000002', 9, 'Kept', 'kept', '2026-03-01 10:00:00+00', '2026-11-28 18:06:13.946281+00', '[{"do": "set", "id": "one", "in": "stations", "field": "name", "value": "Bed 9"}]', '[{"path": ["stations", "one", "name"], "after": "Bed 9", "before": "Bed 8"}]', NULL, 1);
INSERT INTO public.batches VALUES ('0198f2a0-0000-7000-8000-000000000010', '0198f2a0-4b7e-7c31-9d52-6a1f0c3e5b99', '00000000-0000-7000-8000-000000000001', '00000000-0000-7000-8000-000000000002', 10, 'Kept', 'kept', '2026-03-01 10:00:00+00', '2026-11-28 18:06:13.965917+00', '[{"do": "set", "id": "one", "in": "stations", "field": "name", "value": "Bed 10"}]', '[{"path": ["stations", "one", "name"], "after": "Bed 10", "before": "Bed 9"}]', NULL, 1);
INSERT INTO public.batches VALUES ('0198f2a0-0000-7000-8000-000000000011', '0198f2a0-4b7e-7c31-9d52-6a1f0c3e5b99', '00000000-0000-7000-8000-000000000001', '00000000-0000-7000-8000-000000000002', 11, 'Kept', 'kept', '2026-03-01 10:00:00+00', '2026-11-28 18:06:13.987695+00', '[{"do": "set", "id": "one", "in": "stations", "field": "name", "value": "Bed 11"}]', '[{"path": ["stations", "one", "name"], "after": "Bed 11", "before": "Bed 10"}]', NULL, 1);
INSERT INTO public.batches VALUES ('0198f2a0-0000-7000-8000-000000000012', '0198f2a0-4b7e-7c31-9d52-6a1f0c3e5b99', '00000000-0000-7000-8000-000000000001', '00000000-0000-7000-8000-000000000002', 12, 'Kept', 'kept', '2026-03-01 10:00:00+00', '2026-11-28 18:06:14.027025+00', '[{"do": "set", "id": "one", "in": "stations", "field": "name", "value": "Bed 12"}]', '[{"path": ["stations", "one", "name"], "after": "Bed 12", "before": "Bed 11"}]', NULL, 1);
INSERT INTO public.batches VALUES ('0198f2a0-0000-7000-8000-000000000013', '0198f2a0-4b7e-7c31-9d52-6a1f0c3e5b99', '00000000-0000-7000-8000-000000000001', '00000000-0000-7000-8000-000000000002', 13, 'Kept', 'kept', '2026-03-01 10:00:00+00', '2026-11-28 18:06:14.155669+00', '[{"do": "set", "id": "one", "in": "stations", "field": "name", "value": "Bed 13"}]', '[{"path": ["stations", "one", "name"], "after": "Bed 13", "before": "Bed 12"}]', NULL, 1);
INSERT INTO public.batches VALUES ('0198f2a0-0000-7000-8000-000000000014', '0198f2a0-4b7e-7c31-9d52-6a1f0c3e5b99', '00000000-0000-7000-8000-000000000001', '00000000-0000-7000-8000-000000000002', 14, 'Kept', 'kept', '2026-03-01 10:00:00+00', '2026-11-28 18:06:14.17493+00', '[{"do": "set", "id": "one", "in": "stations", "field": "name", "value": "Bed 14"}]', '[{"path": ["stations", "one", "name"], "after": "Bed 14", "before": "Bed 13"}]', NULL, 1);
INSERT INTO public.batches VALUES ('0198f2a0-0000-7000-8000-000000000015', '0198f2a0-4b7e-7c31-9d52-6a1f0c3e5b99', '00000000-0000-7000-8000-000000000001', '00000000-0000-7000-8000-000000000002', 15, 'Kept', 'kept', '2026-03-01 10:00:00+00', '2026-11-28 18:06:14.185065+00', '[{"do": "set", "id": "one", "in": "stations", "field": "name", "value": "Bed 15"}]', '[{"path": ["stations", "one", "name"], "after": "Bed 15", "before": "Bed 14"}]', NULL, 1);
INSERT INTO public.batches VALUES ('0198f2a0-0000-7000-8000-000000000016', '0198f2a0-4b7e-7c31-9d52-6a1f0c3e5b99', '00000000-0000-7000-8000-000000000001', '00000000-0000-7000-8000-000000000002', 16, 'Kept', 'kept', '2026-03-01 10:00:00+00', '2026-11-28 18:06:14.199996+00', '[{"do": "set", "id": "one", "in": "stations", "field": "name", "value": "Bed 16"}]', '[{"path": ["stations", "one", "name"], "after": "Bed 16", "before": "Bed 15"}]', NULL, 1);
INSERT INTO public.batches VALUES ('0198f2a0-0000-7000-8000-000000000017', '0198f2a0-4b7e-7c31-9d52-6a1f0c3e5b99', '00000000-0000-7000-8000-000000000001', '00000000-0000-7000-8000-000000000002', 17, 'Kept', 'kept', '2026-03-01 10:00:00+00', '2026-11-28 18:06:14.209714+00', '[{"do": "set", "id": "one", "in": "stations", "field": "name", "value": "Bed 17"}]', '[{"path": ["stations", "one", "name"], "after": "Bed 17", "before": "Bed 16"}]', NULL, 1);
INSERT INTO public.batches VALUES ('0198f2a0-0000-7000-8000-000000000018', '0198f2a0-4b7e-7c31-9d52-6a1f0c3e5b99', '00000000-0000-7000-8000-000000000001', '00000000-0000-7000-8000-000000000002', 18, 'Kept', 'kept', '2026-03-01 10:00:00+00', '2026-11-28 18:06:14.220378+00', '[{"do": "set", "id": "one", "in": "stations", "field": "name", "value": "Bed 18"}]', '[{"path": ["stations", "one", "name"], "after": "Bed 18", "before": "Bed 17"}]', NULL, 1);
INSERT INTO public.batches VALUES ('0198f2a0-0000-7000-8000-000000000019', '0198f2a0-4b7e-7c31-9d52-6a1f0c3e5b99', '00000000-0000-7000-8000-000000000001', '00000000-0000-7000-8000-000000000002', 19, 'Kept', 'kept', '2026-03-01 10:00:00+00', '2026-11-28 18:06:14.229853+00', '[{"do": "set", "id": "one", "in": "stations", "field": "name", "value": "Bed 19"}]', '[{"path": ["stations", "one", "name"], "after": "Bed 19", "before": "Bed 18"}]', NULL, 1);
INSERT INTO public.batches VALUES ('0198f2a0-0000-7000-8000-000000000020', '0198f2a0-4b7e-7c31-9d52-6a1f0c3e5b99', '00000000-0000-7000-8000-000000000001', '00000000-0000-7000-8000-000000000002', 20, 'Kept', 'kept', '2026-03-01 10:00:00+00', '2026-11-28 18:06:14.256462+00', '[{"do": "set", "id": "one", "in": "stations", "field": "name", "value": "Bed 20"}]', '[{"path": ["stations", "one", "name"], "after": "Bed 20", "before": "Bed 19"}]', NULL, 1);
INSERT INTO public.batches VALUES ('0198f2a0-0000-7000-8000-000000000021', '0198f2a0-4b7e-7c31-9d52-6a1f0c3e5b99', '00000000-0000-7000-8000-000000000001', '00000000-0000-7000-8000-000000000002', 21, 'Kept', 'kept', '2026-03-01 10:00:00+00', '2026-11-28 18:06:14.268449+00', '[{"do": "set", "id": "one", "in": "stations", "field": "name", "value": "Bed 21"}]', '[{"path": ["stations", "one", "name"], "after": "Bed 21", "before": "Bed 20"}]', NULL, 1);
INSERT INTO public.batches VALUES ('0198f2a0-0000-7000-8000-000000000022', '0198f2a0-4b7e-7c31-9d52-6a1f0c3e5b99', '00000000-0000-7000-8000-000000000001', '00000000-0000-7000-8000-000000000002', 22, 'Kept', 'kept', '2026-03-01 10:00:00+00', '2026-11-28 18:06:14.281291+00', '[{"do": "set", "id": "one", "in": "stations", "field": "name", "value": "Bed 22"}]', '[{"path": ["stations", "one", "name"], "after": "Bed 22", "before": "Bed 21"}]', NULL, 1);
INSERT INTO public.batches VALUES ('0198f2a0-0000-7000-8000-000000000023', '0198f2a0-4b7e-7c31-9d52-6a1f0c3e5b99', '00000000-0000-7000-8000-000000000001', '00000000-0000-7000-8000-000000000002', 23, 'Kept', 'kept', '2026-03-01 10:00:00+00', '2026-11-28 18:06:14.295446+00', '[{"do": "set", "id": "one", "in": "stations", "field": "name", "value": "Bed 23"}]', '[{"path": ["stations", "one", "name"], "after": "Bed 23", "before": "Bed 22"}]', NULL, 1);
INSERT INTO public.batches VALUES ('0198f2a0-0000-7000-8000-000000000024', '0198f2a0-4b7e-7c31-9d52-6a1f0c3e5b99', '00000000-0000-7000-8000-000000000001', '00000000-0000-7000-8000-000000000002', 24, 'Kept', 'kept', '2026-03-01 10:00:00+00', '2026-11-28 18:06:14.306351+00', '[{"do": "set", "id": "one", "in": "stations", "field": "name", "value": "Bed 24"}]', '[{"path": ["stations", "one", "name"], "after": "Bed 24", "before": "Bed 23"}]', NULL, 1);
INSERT INTO public.batches VALUES ('0198f2a0-0000-7000-8000-000000000025', '0198f2a0-4b7e-7c31-9d52-6a1f0c3e5b99', '00000000-0000-7000-8000-000000000001', '00000000-0000-7000-8000-000000000002', 25, 'Kept', 'kept', '2026-03-01 10:00:00+00', '2026-11-28 18:06:14.320827+00', '[{"do": "set", "id": "one", "in": "stations", "field": "name", "value": "Bed 25"}]', '[{"path": ["stations", "one", "name"], "after": "Bed 25", "before": "Bed 24"}]', NULL, 1);
INSERT INTO public.batches VALUES ('0198f2a0-0000-7000-8000-000000000026', '0198f2a0-4b7e-7c31-9d52-6a1f0c3e5b99', '00000000-0000-7000-8000-000000000001', '00000000-0000-7000-8000-000000000002', 26, 'Kept', 'kept', '2026-03-01 10:00:00+00', '2026-11-28 18:06:14.339579+00', '[{"do": "set", "id": "one", "in": "stations", "field": "name", "value": "Bed 26"}]', '[{"path": ["stations", "one", "name"], "after": "Bed 26", "before": "Bed 25"}]', NULL, 1);
INSERT INTO public.batches VALUES ('0198f2a0-0000-7000-8000-000000000027', '0198f2a0-4b7e-7c31-9d52-6a1f0c3e5b99', '00000000-0000-7000-8000-000000000001', '00000000-0000-7000-8000-000000000002', 27, 'Kept', 'kept', '2026-03-01 10:00:00+00', '2026-11-28 18:06:14.423635+00', '[{"do": "set", "id": "one", "in": "stations", "field": "name", "value": "Bed 27"}]', '[{"path": ["stations", "one", "name"], "after": "Bed 27", "before": "Bed 26"}]', NULL, 1);
INSERT INTO public.batches VALUES ('0198f2a0-0000-7000-8000-000000000028', '0198f2a0-4b7e-7c31-9d52-6a1f0c3e5b99', '00000000-0000-7000-8000-000000000001', '00000000-0000-7000-8000-000000000002', 28, 'Kept', 'kept', '2026-03-01 10:00:00+00', '2026-11-28 18:06:14.437271+00', '[{"do": "set", "id": "one", "in": "stations", "field": "name", "value": "Bed 28"}]', '[{"path": ["stations", "one", "name"], "after": "Bed 28", "before": "Bed 27"}]', NULL, 1);
INSERT INTO public.batches VALUES ('0198f2a0-0000-7000-8000-000000000029', '0198f2a0-4b7e-7c31-9d52-6a1f0c3e5b99', '00000000-0000-7000-8000-000000000001', '00000000-0000-7000-8000-000000000002', 29, 'Kept', 'kept', '2026-03-01 10:00:00+00', '2026-11-28 18:06:14.467646+00', '[{"do": "set", "id": "one", "in": "stations", "field": "name", "value": "Bed 29"}]', '[{"path": ["stations", "one", "name"], "after": "Bed 29", "before": "Bed 28"}]', NULL, 1);
INSERT INTO public.batches VALUES ('0198f2a0-0000-7000-8000-000000000030', '0198f2a0-4b7e-7c31-9d52-6a1f0c3e5b99', '00000000-0000-7000-8000-000000000001', '00000000-0000-7000-8000-000000000002', 30, 'Kept', 'kept', '2026-03-01 10:00:00+00', '2026-11-28 18:06:14.47979+00', '[{"do": "set", "id": "one", "in": "stations", "field": "name", "value": "Bed 30"}]', '[{"path": ["stations", "one", "name"], "after": "Bed 30", "before": "Bed 29"}]', NULL, 1);
INSERT INTO public.batches VALUES ('0198f2a0-0000-7000-8000-000000000031', '0198f2a0-4b7e-7c31-9d52-6a1f0c3e5b99', '00000000-0000-7000-8000-000000000001', '00000000-0000-7000-8000-000000000002', 31, 'Kept', 'kept', '2026-03-01 10:00:00+00', '2026-11-28 18:06:14.494102+00', '[{"do": "set", "id": "one", "in": "stations", "field": "name", "value": "Bed 31"}]', '[{"path": ["stations", "one", "name"], "after": "Bed 31", "before": "Bed 30"}]', NULL, 1);
INSERT INTO public.batches VALUES ('0198f2a0-0000-7000-8000-000000000032', '0198f2a0-4b7e-7c31-9d52-6a1f0c3e5b99', '00000000-0000-7000-8000-000000000001', '00000000-0000-7000-8000-000000000002', 32, 'Kept', 'kept', '2026-03-01 10:00:00+00', '2026-11-28 18:06:14.50933+00', '[{"do": "set", "id": "one", "in": "stations", "field": "name", "value": "Bed 32"}]', '[{"path": ["stations", "one", "name"], "after": "Bed 32", "before": "Bed 31"}]', NULL, 1);
INSERT INTO public.batches VALUES ('0198f2a0-0000-7000-8000-000000000033', '0198f2a0-4b7e-7c31-9d52-6a1f0c3e5b99', '00000000-0000-7000-8000-000000000001', '00000000-0000-7000-8000-000000000002', 33, 'Kept', 'kept', '2026-03-01 10:00:00+00', '2026-11-28 18:06:14.581342+00', '[{"do": "set", "id": "one", "in": "stations", "field": "name", "value": "Bed 33"}]', '[{"path": ["stations", "one", "name"], "after": "Bed 33", "before": "Bed 32"}]', NULL, 1);
INSERT INTO public.batches VALUES ('0198f2a0-0000-7000-8000-000000000034', '0198f2a0-4b7e-7c31-9d52-6a1f0c3e5b99', '00000000-0000-7000-8000-000000000001', '00000000-0000-7000-8000-000000000002', 34, 'Kept', 'kept', '2026-03-01 10:00:00+00', '2026-11-28 18:06:14.617616+00', '[{"do": "set", "id": "one", "in": "stations", "field": "name", "value": "Bed 34"}]', '[{"path": ["stations", "one", "name"], "after": "Bed 34", "before": "Bed 33"}]', NULL, 1);
INSERT INTO public.batches VALUES ('0198f2a0-0000-7000-8000-000000000035', '0198f2a0-4b7e-7c31-9d52-6a1f0c3e5b99', '00000000-0000-7000-8000-000000000001', '00000000-0000-7000-8000-000000000002', 35, 'Kept', 'kept', '2026-03-01 10:00:00+00', '2026-11-28 18:06:14.644686+00', '[{"do": "set", "id": "one", "in": "stations", "field": "name", "value": "Bed 35"}]', '[{"path": ["stations", "one", "name"], "after": "Bed 35", "before": "Bed 34"}]', NULL, 1);
INSERT INTO public.batches VALUES ('0198f2a0-0000-7000-8000-000000000036', '0198f2a0-4b7e-7c31-9d52-6a1f0c3e5b99', '00000000-0000-7000-8000-000000000001', '00000000-0000-7000-8000-000000000002', 36, 'Kept', 'kept', '2026-03-01 10:00:00+00', '2026-11-28 18:06:14.670875+00', '[{"do": "set", "id": "one", "in": "stations", "field": "name", "value": "Bed 36"}]', '[{"path": ["stations", "one", "name"], "after": "Bed 36", "before": "Bed 35"}]', NULL, 1);
INSERT INTO public.batches VALUES ('0198f2a0-0000-7000-8000-000000000037', '0198f2a0-4b7e-7c31-9d52-6a1f0c3e5b99', '00000000-0000-7000-8000-000000000001', '00000000-0000-7000-8000-000000000002', 37, 'Kept', 'kept', '2026-03-01 10:00:00+00', '2026-11-28 18:06:14.685417+00', '[{"do": "set", "id": "one", "in": "stations", "field": "name", "value": "Bed 37"}]', '[{"path": ["stations", "one", "name"], "after": "Bed 37", "before": "Bed 36"}]', NULL, 1);
INSERT INTO public.batches VALUES ('0198f2a0-0000-7000-8000-000000000038', '0198f2a0-4b7e-7c31-9d52-6a1f0c3e5b99', '00000000-0000-7000-8000-000000000001', '00000000-0000-7000-8000-000000000002', 38, 'Kept', 'kept', '2026-03-01 10:00:00+00', '2026-11-28 18:06:14.766478+00', '[{"do": "set", "id": "one", "in": "stations", "field": "name", "value": "Bed 38"}]', '[{"path": ["stations", "one", "name"], "after": "Bed 38", "before": "Bed 37"}]', NULL, 1);
INSERT INTO public.batches VALUES ('0198f2a0-0000-7000-8000-000000000039', '0198f2a0-4b7e-7c31-9d52-6a1f0c3e5b99', '00000000-0000-7000-8000-000000000001', '00000000-0000-7000-8000-000000000002', 39, 'Kept', 'kept', '2026-03-01 10:00:00+00', '2026-11-28 18:06:14.778325+00', '[{"do": "set", "id": "one", "in": "stations", "field": "name", "value": "Bed 39"}]', '[{"path": ["stations", "one", "name"], "after": "Bed 39", "before": "Bed 38"}]', NULL, 1);
INSERT INTO public.batches VALUES ('0198f2a0-0000-7000-8000-000000000040', '0198f2a0-4b7e-7c31-9d52-6a1f0c3e5b99', '00000000-0000-7000-8000-000000000001', '00000000-0000-7000-8000-000000000002', 40, 'Kept', 'kept', '2026-03-01 10:00:00+00', '2026-11-28 18:06:14.871616+00', '[{"do": "set", "id": "one", "in": "stations", "field": "name", "value": "Bed 40"}]', '[{"path": ["stations", "one", "name"], "after": "Bed 40", "before": "Bed 39"}]', NULL, 1);
INSERT INTO public.batches VALUES ('0198f2a0-0000-7000-8000-000000000041', '0198f2a0-4b7e-7c31-9d52-6a1f0c3e5b99', '00000000-0000-7000-8000-000000000001', '00000000-0000-7000-8000-000000000002', 41, 'Kept', 'kept', '2026-03-01 10:00:00+00', '2026-11-28 18:06:14.905162+00', '[{"do": "set", "id": "one", "in": "stations", "field": "name", "value": "Bed 41"}]', '[{"path": ["stations", "one", "name"], "after": "Bed 41", "before": "Bed 40"}]', NULL, 1);
INSERT INTO public.batches VALUES ('0198f2a0-0000-7000-8000-000000000042', '0198f2a0-4b7e-7c31-9d52-6a1f0c3e5b99', '00000000-0000-7000-8000-000000000001', '00000000-0000-7000-8000-000000000002', 42, 'Kept', 'kept', '2026-03-01 10:00:00+00', '2026-11-28 18:06:14.935488+00', '[{"do": "set", "id": "one", "in": "stations", "field": "name", "value": "Bed 42"}]', '[{"path": ["stations", "one", "name"], "after": "Bed 42", "before": "Bed 41"}]', NULL, 1);
INSERT INTO public.batches VALUES ('0198f2a0-0000-7000-8000-000000000043', '0198f2a0-4b7e-7c31-9d52-6a1f0c3e5b99', '00000000-0000-7000-8000-000000000001', '00000000-0000-7000-8000-000000000002', 43, 'Kept', 'kept', '2026-03-01 10:00:00+00', '2026-11-28 18:06:15.031762+00', '[{"do": "set", "id": "one", "in": "stations", "field": "name", "value": "Bed 43"}]', '[{"path": ["stations", "one", "name"], "after": "Bed 43", "before": "Bed 42"}]', NULL, 1);
INSERT INTO public.batches VALUES ('0198f2a0-0000-7000-8000-000000000044', '0198f2a0-4b7e-7c31-9d52-6a1f0c3e5b99', '00000000-0000-7000-8000-000000000001', '00000000-0000-7000-8000-000000000002', 44, 'Kept', 'kept', '2026-03-01 10:00:00+00', '2026-11-28 18:06:15.046458+00', '[{"do": "set", "id": "one", "in": "stations", "field": "name", "value": "Bed 44"}]', '[{"path": ["stations", "one", "name"], "after": "Bed 44", "before": "Bed 43"}]', NULL, 1);
INSERT INTO public.batches VALUES ('0198f2a0-0000-7000-8000-000000000045', '0198f2a0-4b7e-7c31-9d52-6a1f0c3e5b99', '00000000-0000-7000-8000-000000000001', '00000000-0000-7000-8000-000000000002', 45, 'Kept', 'kept', '2026-03-01 10:00:00+00', '2026-11-28 18:06:15.063533+00', '[{"do": "set", "id": "one", "in": "stations", "field": "name", "value": "Bed 45"}]', '[{"path": ["stations", "one", "name"], "after": "Bed 45", "before": "Bed 44"}]', NULL, 1);
INSERT INTO public.batches VALUES ('0198f2a0-0000-7000-8000-000000000046', '0198f2a0-4b7e-7c31-9d52-6a1f0c3e5b99', '00000000-0000-7000-8000-000000000001', '00000000-0000-7000-8000-000000000002', 46, 'Kept', 'kept', '2026-03-01 10:00:00+00', '2026-11-28 18:06:15.078565+00', '[{"do": "set", "id": "one", "in": "stations", "field": "name", "value": "Bed 46"}]', '[{"path": ["stations", "one", "name"], "after": "Bed 46", "before": "Bed 45"}]', NULL, 1);
INSERT INTO public.batches VALUES ('0198f2a0-0000-7000-8000-000000000047', '0198f2a0-4b7e-7c31-9d52-6a1f0c3e5b99', '00000000-0000-7000-8000-000000000001', '00000000-0000-7000-8000-000000000002', 47, 'Kept', 'kept', '2026-03-01 10:00:00+00', '2026-11-28 18:06:15.106569+00', '[{"do": "set", "id": "one", "in": "stations", "field": "name", "value": "Bed 47"}]', '[{"path": ["stations", "one", "name"], "after": "Bed 47", "before": "Bed 46"}]', NULL, 1);
INSERT INTO public.batches VALUES ('0198f2a0-0000-7000-8000-000000000048', '0198f2a0-4b7e-7c31-9d52-6a1f0c3e5b99', '00000000-0000-7000-8000-000000000001', '00000000-0000-7000-8000-000000000002', 48, 'Kept', 'kept', '2026-03-01 10:00:00+00', '2026-11-28 18:06:15.139818+00', '[{"do": "set", "id": "one", "in": "stations", "field": "name", "value": "Bed 48"}]', '[{"path": ["stations", "one", "name"], "after": "Bed 48", "before": "Bed 47"}]', NULL, 1);
INSERT INTO public.batches VALUES ('0198f2a0-0000-7000-8000-000000000049', '0198f2a0-4b7e-7c31-9d52-6a1f0c3e5b99', '00000000-0000-7000-8000-000000000001', '00000000-0000-7000-8000-000000000002', 49, 'Kept', 'kept', '2026-03-01 10:00:00+00', '2026-11-28 18:06:15.152475+00', '[{"do": "set", "id": "one", "in": "stations", "field": "name", "value": "Bed 49"}]', '[{"path": ["stations", "one", "name"], "after": "Bed 49", "before": "Bed 48"}]', NULL, 1);
INSERT INTO public.batches VALUES ('0198f2a0-0000-7000-8000-000000000050', '0198f2a0-4b7e-7c31-9d52-6a1f0c3e5b99', '00000000-0000-7000-8000-000000000001', '00000000-0000-7000-8000-000000000002', 50, 'Kept', 'kept', '2026-03-01 10:00:00+00', '2026-11-28 18:06:15.161823+00', '[{"do": "set", "id": "one", "in": "stations", "field": "name", "value": "Bed 50"}]', '[{"path": ["stations", "one", "name"], "after": "Bed 50", "before": "Bed 49"}]', NULL, 1);
INSERT INTO public.batches VALUES ('0198f2a0-0000-7000-8000-000000000051', '0198f2a0-4b7e-7c31-9d52-6a1f0c3e5b99', '00000000-0000-7000-8000-000000000001', '00000000-0000-7000-8000-000000000002', 51, 'Kept', 'kept', '2026-03-01 10:00:00+00', '2026-11-28 18:06:15.191217+00', '[{"do": "set", "id": "one", "in": "stations", "field": "name", "value": "Bed 51"}]', '[{"path": ["stations", "one", "name"], "after": "Bed 51", "before": "Bed 50"}]', NULL, 1);
INSERT INTO public.batches VALUES ('0198f2a0-0000-7000-8000-000000000052', '0198f2a0-4b7e-7c31-9d52-6a1f0c3e5b99', '00000000-0000-7000-8000-000000000001', '00000000-0000-7000-8000-000000000002', 52, 'Kept', 'kept', '2026-03-01 10:00:00+00', '2026-11-28 18:06:15.219959+00', '[{"do": "set", "id": "one", "in": "stations", "field": "name", "value": "Bed 52"}]', '[{"path": ["stations", "one", "name"], "after": "Bed 52", "before": "Bed 51"}]', NULL, 1);
INSERT INTO public.batches VALUES ('0198f2a0-0000-7000-8000-000000000053', '0198f2a0-4b7e-7c31-9d52-6a1f0c3e5b99', '00000000-0000-7000-8000-000000000001', '00000000-0000-7000-8000-000000000002', 53, 'Kept', 'kept', '2026-03-01 10:00:00+00', '2026-11-28 18:06:15.23209+00', '[{"do": "set", "id": "one", "in": "stations", "field": "name", "value": "Bed 51"}]', '[{"path": ["stations", "one", "name"], "after": "Bed 51", "before": "Bed 52"}]', '0198f2a0-0000-7000-8000-000000000052', 1);
INSERT INTO public.companies VALUES ('00000000-0000-7000-8000-000000000001', 'This company');
INSERT INTO public.facts VALUES ('00000000-0000-7000-8000-000000000001', '0198f2a0-4b7e-7c31-9d52-6a1f0c3e5b99', 'strikeOut', '0198f2a0-0000-7000-8000-000000000057', 'reading', '0198f2a0-0000-7000-8000-000000000055', '00000000-0000-7000-8000-000000000002', '2026-03-01 10:00:00+00', '2026-11-28 18:06:15.558656+00', 5, '{"at": "2026-03-01T10:00:00.000Z", "author": "Kept", "reason": "clip slipped", "reading": "0198f2a0-0000-7000-8000-000000000055"}');
INSERT INTO public.facts VALUES ('00000000-0000-7000-8000-000000000001', '0198f2a0-4b7e-7c31-9d52-6a1f0c3e5b99', 'acceptance', '0198f2a0-0000-7000-8000-000000000060', 'reading', '0198f2a0-0000-7000-8000-000000000055', '00000000-0000-7000-8000-000000000002', '2026-03-01 10:00:00+00', '2026-11-28 18:06:15.616366+00', 5, '{"at": "2026-03-01T10:00:00.000Z", "author": "Kept", "reason": "new coil", "reading": "0198f2a0-0000-7000-8000-000000000055"}');
INSERT INTO public.facts VALUES ('00000000-0000-7000-8000-000000000001', '0198f2a0-4b7e-7c31-9d52-6a1f0c3e5b99', 'job', '0198f2a0-0000-7000-8000-000000000054', 'visit', '0198f2a0-0000-7000-8000-000000000054', '00000000-0000-7000-8000-000000000002', '2026-03-01 10:00:00+00', '2026-11-28 18:06:15.249166+00', 5, '{"at": "2026-03-01T10:00:00.000Z", "kind": "hunt", "meter": {"name": "", "openMark": "OL", "offset_ohm": 0.2, "highest_ohm": 20000000, "leadZero_ohm": 0, "accuracy_ratio": 0.01}, "title": "Kept", "visit": "0198f2a0-0000-7000-8000-000000000054", "author": "Kept", "coil_C": null, "ground_C": 12, "controller": "a"}');
INSERT INTO public.facts VALUES ('00000000-0000-7000-8000-000000000001', '0198f2a0-4b7e-7c31-9d52-6a1f0c3e5b99', 'job', '0198f2a0-0000-7000-8000-000000000070', 'visit', '0198f2a0-0000-7000-8000-000000000070', '00000000-0000-7000-8000-000000000002', '2026-03-02 10:00:00+00', '2026-11-28 20:04:43.395238+00', 5, '{"at": "2026-03-02T10:00:00.000Z", "kind": "hunt", "meter": {"name": "", "openMark": "OL", "offset_ohm": 0.2, "highest_ohm": 20000000, "leadZero_ohm": 0, "accuracy_ratio": 0.01}, "title": "Kept hunt", "visit": "0198f2a0-0000-7000-8000-000000000070", "author": "Kept", "coil_C": null, "ground_C": 12, "controller": "a"}');
INSERT INTO public.facts VALUES ('00000000-0000-7000-8000-000000000001', '0198f2a0-4b7e-7c31-9d52-6a1f0c3e5b99', 'caution', '0198f2a0-0000-7000-8000-000000000058', 'job', '0198f2a0-0000-7000-8000-000000000054', '00000000-0000-7000-8000-000000000002', '2026-03-01 10:00:00+00', '2026-11-28 18:06:15.589347+00', 5, '{"at": "2026-03-01T10:00:00.000Z", "job": "0198f2a0-0000-7000-8000-000000000054", "code": "power_off", "author": "Kept"}');
INSERT INTO public.facts VALUES ('00000000-0000-7000-8000-000000000001', '0198f2a0-4b7e-7c31-9d52-6a1f0c3e5b99', 'reading', '0198f2a0-0000-7000-8000-000000000055', 'job', '0198f2a0-0000-7000-8000-000000000054', '00000000-0000-7000-8000-000000000002', '2026-03-01 10:00:00+00', '2026-11-28 18:06:15.286086+00', 5, '{"at": "2026-03-01T10:00:00.000Z", "job": "0198f2a0-0000-7000-8000-000000000054", "off": "all_leads", "test": {"to": {"kind": "terminal", "terminal": "c", "controller": "a"}, "from": {"kind": "terminal", "terminal": "t1", "controller": "a"}, "kind": "ohms"}, "meter": {"name": "", "openMark": "OL", "offset_ohm": 0.2, "highest_ohm": 20000000, "leadZero_ohm": 0, "accuracy_ratio": 0.01}, "value": {"ohm": 34.5, "kind": "ohm"}, "author": "Kept", "ground_C": 12, "revision": 0}');
INSERT INTO public.facts VALUES ('00000000-0000-7000-8000-000000000001', '0198f2a0-4b7e-7c31-9d52-6a1f0c3e5b99', 'reading', '0198f2a0-0000-7000-8000-000000000056', 'job', '0198f2a0-0000-7000-8000-000000000054', '00000000-0000-7000-8000-000000000002', '2026-03-01 10:00:00+00', '2026-11-28 18:06:15.544512+00', 5, '{"at": "2026-03-01T10:00:00.000Z", "job": "0198f2a0-0000-7000-8000-000000000054", "off": "all_leads", "test": {"to": {"kind": "terminal", "terminal": "c", "controller": "a"}, "from": {"kind": "terminal", "terminal": "t1", "controller": "a"}, "kind": "ohms"}, "meter": {"name": "", "openMark": "OL", "offset_ohm": 0.2, "highest_ohm": 20000000, "leadZero_ohm": 0, "accuracy_ratio": 0.01}, "value": {"kind": "open"}, "author": "Kept", "ground_C": 12, "revision": 0}');
INSERT INTO public.facts VALUES ('00000000-0000-7000-8000-000000000001', '0198f2a0-4b7e-7c31-9d52-6a1f0c3e5b99', 'closing', '0198f2a0-0000-7000-8000-000000000059', 'job', '0198f2a0-0000-7000-8000-000000000054', '00000000-0000-7000-8000-000000000002', '2026-03-01 10:00:00+00', '2026-11-28 18:06:15.6062+00', 5, '{"at": "2026-03-01T10:00:00.000Z", "job": "0198f2a0-0000-7000-8000-000000000054", "author": "Kept", "dialBack": true}');
INSERT INTO public.facts VALUES ('00000000-0000-7000-8000-000000000001', '0198f2a0-4b7e-7c31-9d52-6a1f0c3e5b99', 'reading', '0198f2a0-0000-7000-8000-000000000071', 'job', '0198f2a0-0000-7000-8000-000000000070', '00000000-0000-7000-8000-000000000002', '2026-03-02 10:00:00+00', '2026-11-28 20:04:43.395238+00', 5, '{"at": "2026-03-02T10:00:00.000Z", "job": "0198f2a0-0000-7000-8000-000000000070", "off": "all_leads", "test": {"kind": "lead_through", "device": "v2"}, "meter": {"name": "", "openMark": "OL", "offset_ohm": 0.2, "highest_ohm": 20000000, "leadZero_ohm": 0, "accuracy_ratio": 0.01}, "value": {"kind": "open"}, "author": "Kept", "ground_C": 12, "revision": 53}');
INSERT INTO public.facts VALUES ('00000000-0000-7000-8000-000000000001', '0198f2a0-4b7e-7c31-9d52-6a1f0c3e5b99', 'finding', '0198f2a0-0000-7000-8000-000000000061', 'job', '0198f2a0-0000-7000-8000-000000000054', '00000000-0000-7000-8000-000000000002', '2026-03-01 10:00:00+00', '2026-11-28 18:06:15.658942+00', 5, '{"at": "2026-03-01T10:00:00.000Z", "how": "changed", "job": "0198f2a0-0000-7000-8000-000000000054", "says": "The coil", "where": {"kind": "coil", "device": "V1"}, "author": "Kept", "belief": 0.99}');
INSERT INTO public.facts VALUES ('00000000-0000-7000-8000-000000000001', '0198f2a0-4b7e-7c31-9d52-6a1f0c3e5b99', 'finding', '0198f2a0-0000-7000-8000-000000000072', 'job', '0198f2a0-0000-7000-8000-000000000070', '00000000-0000-7000-8000-000000000002', '2026-03-02 10:00:00+00', '2026-11-28 20:04:43.395238+00', 5, '{"at": "2026-03-02T10:00:00.000Z", "how": "", "job": "0198f2a0-0000-7000-8000-000000000070", "says": "the common between B1 and B2", "where": {"to": "s2", "core": "white", "from": "s1", "kind": "run", "cable": "k"}, "author": "Kept", "belief": 0.98}');
INSERT INTO public.facts VALUES ('00000000-0000-7000-8000-000000000001', '0198f2a0-4b7e-7c31-9d52-6a1f0c3e5b99', 'finding', '0198f2a0-0000-7000-8000-000000000073', 'job', '0198f2a0-0000-7000-8000-000000000070', '00000000-0000-7000-8000-000000000002', '2026-03-02 10:00:00+00', '2026-11-28 20:04:43.395238+00', 5, '{"at": "2026-03-02T10:00:00.000Z", "how": "", "job": "0198f2a0-0000-7000-8000-000000000070", "says": "a stretch that is gone", "where": null, "author": "Kept", "belief": null}');
INSERT INTO public.facts VALUES ('00000000-0000-7000-8000-000000000001', '0198f2a0-4b7e-7c31-9d52-6a1f0c3e5b99', 'visit', '0198f2a0-0000-7000-8000-000000000054', NULL, NULL, '00000000-0000-7000-8000-000000000002', '2026-03-01 10:00:00+00', '2026-11-28 18:06:15.249166+00', 5, '{"at": "2026-03-01T10:00:00.000Z", "author": "Kept", "people": []}');
INSERT INTO public.facts VALUES ('00000000-0000-7000-8000-000000000001', '0198f2a0-4b7e-7c31-9d52-6a1f0c3e5b99', 'visit', '0198f2a0-0000-7000-8000-000000000070', NULL, NULL, '00000000-0000-7000-8000-000000000002', '2026-03-02 10:00:00+00', '2026-11-28 20:04:43.395238+00', 5, '{"at": "2026-03-02T10:00:00.000Z", "author": "Kept", "people": []}');
INSERT INTO public.kysely_migration VALUES ('0001-first', '2026-11-28T18:06:09.695Z');
INSERT INTO public.kysely_migration VALUES ('0002-pictures', '2026-11-28T18:06:09.774Z');
INSERT INTO public.kysely_migration VALUES ('0003-findings', '2026-11-28T18:06:09.783Z');
INSERT INTO public.kysely_migration VALUES ('0004-one-table-of-facts', '2026-11-28T20:04:43.365Z');
INSERT INTO public.kysely_migration VALUES ('0005-jobs-in-visits', '2026-11-30T06:00:59.179Z');
INSERT INTO public.kysely_migration VALUES ('0006-procedures', '2026-12-01T05:55:56.785Z');
INSERT INTO public.kysely_migration VALUES ('0007-office', '2026-12-01T13:47:43.487Z');
INSERT INTO public.kysely_migration VALUES ('0008-list', '2026-12-01T18:42:23.313Z');
INSERT INTO public.kysely_migration_lock VALUES ('migration_lock', 0);
INSERT INTO public.part_lives VALUES ('00000000-0000-7000-8000-000000000001', '0198f2a0-4b7e-7c31-9d52-6a1f0c3e5b99', '[{"end": "lives", "from": "2026-03-01", "kind": "gel_nut", "made": null, "part": "joint", "count": 4, "until": null}, {"end": "lives", "from": "2026-03-01", "kind": "terminal", "made": null, "part": "joint", "count": 4, "until": null}, {"end": "lives", "from": "2026-03-01", "kind": "nut_and_gel_tube", "made": null, "part": "joint", "count": 1, "until": null}, {"end": "lives", "from": "2026-03-01", "kind": "Plain AC coil", "made": null, "part": "coil", "count": 3, "until": null}]');
INSERT INTO public.properties VALUES ('0198f2a0-4b7e-7c31-9d52-6a1f0c3e5b99', '00000000-0000-7000-8000-000000000001', '00000000-0000-7000-8000-000000000002', 'Small court', 53, 4, '{"about": {"name": "Small court", "origin": null, "contractor": ""}, "cables": {"k": {"tag": "K", "kind": "multicore", "name": "", "bends": {}, "cores": {"red": {"cutAt": ["s1"], "gauge": null, "order": 0, "colour": {"on": null, "how": "seen", "value": "red"}, "pinned": null, "colourAt": {}, "condition": {"note": "", "since": null, "state": "sound"}, "conditions": {}}, "blue": {"cutAt": [], "gauge": null, "order": 0, "colour": {"on": null, "how": "seen", "value": "blue"}, "pinned": null, "colourAt": {}, "condition": {"note": "", "since": null, "state": "sound"}, "conditions": {}}, "green": {"cutAt": [], "gauge": null, "order": 0, "colour": {"on": null, "how": "seen", "value": "green"}, "pinned": null, "colourAt": {}, "condition": {"note": "", "since": null, "state": "sound"}, "conditions": {}}, "white": {"cutAt": ["s1"], "gauge": null, "order": 0, "colour": {"on": null, "how": "seen", "value": "white"}, "pinned": null, "colourAt": {}, "condition": {"note": "", "since": null, "state": "sound"}, "conditions": {}}, "orange": {"cutAt": ["s1"], "gauge": null, "order": 0, "colour": {"on": null, "how": "seen", "value": "orange"}, "pinned": null, "colourAt": {}, "condition": {"note": "", "since": null, "state": "sound"}, "conditions": {}}}, "gauge": {"on": null, "how": "seen", "value": {"awg": 18}}, "marks": [], "stops": [{"id": "s0", "at_m": {"on": null, "how": "seen", "value": 0}, "place": "cab"}, {"id": "s1", "at_m": {"on": null, "how": "seen", "value": 60}, "place": "b1"}, {"id": "s2", "at_m": {"on": null, "how": "reported", "low": 98, "high": 102}, "place": "b2"}], "filler": "", "warmer_K": 0, "condition": {"note": "", "since": null, "state": "sound"}, "installed": null}}, "places": {"b1": {"lid": "", "tag": "B1", "kind": "valve_box", "name": "", "found": "found", "marker": "", "depth_m": null, "foundAt": null, "position": null, "condition": {"note": "", "since": null, "state": "sound"}}, "b2": {"lid": "", "tag": "B2", "kind": "valve_box", "name": "", "found": "found", "marker": "", "depth_m": null, "foundAt": null, "position": null, "condition": {"note": "", "since": null, "state": "sound"}}, "cab": {"lid": "", "tag": "CAB", "kind": "cabinet", "name": "", "found": "found", "marker": "", "depth_m": null, "foundAt": null, "position": null, "condition": {"note": "", "since": null, "state": "sound"}}}, "devices": {"mv": {"tag": "MV", "kind": "coil", "name": "", "leads": {}, "place": "b1", "address": null, "coilKind": "ac", "condition": {"note": "", "since": null, "state": "sound"}, "installed": null}, "v1": {"tag": "V1", "kind": "coil", "name": "", "leads": {}, "place": "b1", "address": null, "coilKind": "ac", "condition": {"note": "", "since": null, "state": "sound"}, "installed": null}, "v2": {"tag": "V2", "kind": "coil", "name": "", "leads": {}, "place": "b2", "address": null, "coilKind": "ac", "condition": {"note": "", "since": null, "state": "sound"}, "installed": null}}, "splices": {"b1mv": {"ends": [{"core": "orange", "kind": "core", "side": "arrives", "stop": "s1", "cable": "k"}, {"kind": "port", "port": "a", "device": "mv"}], "made": null, "place": "b1", "ticks": [], "condition": {"note": "", "since": null, "state": "sound"}, "connector": "gel_nut"}, "b1v1": {"ends": [{"core": "red", "kind": "core", "side": "arrives", "stop": "s1", "cable": "k"}, {"kind": "port", "port": "a", "device": "v1"}], "made": null, "place": "b1", "ticks": [], "condition": {"note": "", "since": null, "state": "sound"}, "connector": "gel_nut"}, "b2v2": {"ends": [{"core": "blue", "kind": "core", "side": "arrives", "stop": "s2", "cable": "k"}, {"kind": "port", "port": "a", "device": "v2"}], "made": null, "place": "b2", "ticks": [], "condition": {"note": "", "since": null, "state": "sound"}, "connector": "gel_nut"}, "land1": {"ends": [{"kind": "terminal", "terminal": "t1", "controller": "a"}, {"core": "red", "kind": "core", "side": "leaves", "stop": "s0", "cable": "k"}], "made": null, "place": "cab", "ticks": [], "condition": {"note": "", "since": null, "state": "sound"}, "connector": "terminal"}, "land2": {"ends": [{"kind": "terminal", "terminal": "t2", "controller": "a"}, {"core": "blue", "kind": "core", "side": "leaves", "stop": "s0", "cable": "k"}], "made": null, "place": "cab", "ticks": [], "condition": {"note": "", "since": null, "state": "sound"}, "connector": "terminal"}, "landC": {"ends": [{"kind": "terminal", "terminal": "c", "controller": "a"}, {"core": "white", "kind": "core", "side": "leaves", "stop": "s0", "cable": "k"}], "made": null, "place": "cab", "ticks": [], "condition": {"note": "", "since": null, "state": "sound"}, "connector": "terminal"}, "landMV": {"ends": [{"kind": "terminal", "terminal": "mv", "controller": "a"}, {"core": "orange", "kind": "core", "side": "leaves", "stop": "s0", "cable": "k"}], "made": null, "place": "cab", "ticks": [], "condition": {"note": "", "since": null, "state": "sound"}, "connector": "terminal"}, "b1common": {"ends": [{"core": "white", "kind": "core", "side": "arrives", "stop": "s1", "cable": "k"}, {"core": "white", "kind": "core", "side": "leaves", "stop": "s1", "cable": "k"}, {"kind": "port", "port": "b", "device": "mv"}, {"kind": "port", "port": "b", "device": "v1"}], "made": null, "place": "b1", "ticks": [], "condition": {"note": "", "since": null, "state": "sound"}, "connector": "nut_and_gel_tube"}, "b2common": {"ends": [{"core": "white", "kind": "core", "side": "arrives", "stop": "s2", "cable": "k"}, {"kind": "port", "port": "b", "device": "v2"}], "made": null, "place": "b2", "ticks": [], "condition": {"note": "", "since": null, "state": "sound"}, "connector": "gel_nut"}}, "settings": {"units": {"length": "m", "temperature": "C"}, "coil_C": null, "market": "awg", "sizing": {"school": "coil_minimum", "together": 1, "hottest_C": 30, "allowedDrop": {"unit": "V", "value": 4}, "mainsLow_ratio": 0.1}, "wiring": {"colours": [], "jackets": [], "connectors": [], "manyCommons": "chain", "sparesLeast": 2, "spares_ratio": 0.2, "multicoreMost": 12, "multicoreFarthest_m": 150}, "V_open_V": 27, "ground_C": 20, "mains_Hz": 60, "material": {"stock": [], "spools_m": [], "reserve_ratio": 0.1, "slackPerEnd_m": 1.5, "expansion_ratio": 0.02}, "lightning": "ordinary", "commonColour": "white", "ruleOfThumb_ohm": {"low": 20, "high": 60}, "soundSplice_ohm": 0.03, "coilTolerance_ratio": 0.08, "lengthTolerance_ratio": 0.05, "soundSpliceSpread_ohm": 0.02}, "stations": {"one": {"name": "Bed 51", "zone": "", "valves": ["v1"], "terminal": "t1", "controller": "a", "withMaster": true, "pointOfConnection": null}, "two": {"name": "Back lawn", "zone": "", "valves": ["v2"], "terminal": "t2", "controller": "a", "withMaster": true, "pointOfConnection": null}}, "coilKinds": {"ac": {"name": "Plain AC coil", "current": "ac", "rated_V": 24, "inrush_A": 0.4, "rated_Hz": 60, "holding_A": 0.23, "inrush_pf": null, "minimum_V": 19, "holding_pf": null, "holdMinimum_V": 15, "resistance_ohm": 34}}, "underlays": {}, "controllers": {"a": {"tag": "A", "bays": [], "kind": "conventional", "name": "Court", "place": "cab", "indoor": null, "sensor": {"dry": "unknown", "note": "", "closedBy": "unknown"}, "lockable": null, "condition": {"note": "", "since": null, "state": "sound"}, "terminals": {"c": {"tag": "C", "role": "common", "label": "", "order": 0}, "mv": {"tag": "MV", "role": "master", "label": "", "order": 1}, "t1": {"tag": "1", "role": "station", "label": "", "order": 2}, "t2": {"tag": "2", "role": "station", "label": "", "order": 3}}, "remotePort": null, "commonHolds": 1, "masterFirst": false, "transformer": null, "fixedStations": null, "masterLimit_A": 0.28}}, "pointsOfConnection": {"main": {"name": "Street main", "reached": {"pumpRelay": "direct", "flowSensor": "direct", "masterValve": "direct"}, "terminal": {"terminal": "mv", "controller": "a"}, "pumpRelay": null, "flowSensor": null, "masterRest": "closed", "masterValve": "mv"}}}', 1, 2, '2026-11-28 18:06:13.721634+00', '2026-11-28 18:06:15.242+00', NULL);
INSERT INTO public.snapshots VALUES ('0198f2a0-4b7e-7c31-9d52-6a1f0c3e5b99', 0, '{"about": {"name": "Small court", "origin": null, "contractor": ""}, "cables": {"k": {"tag": "K", "kind": "multicore", "name": "", "bends": {}, "cores": {"red": {"cutAt": ["s1"], "gauge": null, "order": 0, "colour": {"on": null, "how": "seen", "value": "red"}, "pinned": null, "colourAt": {}, "condition": {"note": "", "since": null, "state": "sound"}, "conditions": {}}, "blue": {"cutAt": [], "gauge": null, "order": 0, "colour": {"on": null, "how": "seen", "value": "blue"}, "pinned": null, "colourAt": {}, "condition": {"note": "", "since": null, "state": "sound"}, "conditions": {}}, "green": {"cutAt": [], "gauge": null, "order": 0, "colour": {"on": null, "how": "seen", "value": "green"}, "pinned": null, "colourAt": {}, "condition": {"note": "", "since": null, "state": "sound"}, "conditions": {}}, "white": {"cutAt": ["s1"], "gauge": null, "order": 0, "colour": {"on": null, "how": "seen", "value": "white"}, "pinned": null, "colourAt": {}, "condition": {"note": "", "since": null, "state": "sound"}, "conditions": {}}, "orange": {"cutAt": ["s1"], "gauge": null, "order": 0, "colour": {"on": null, "how": "seen", "value": "orange"}, "pinned": null, "colourAt": {}, "condition": {"note": "", "since": null, "state": "sound"}, "conditions": {}}}, "gauge": {"on": null, "how": "seen", "value": {"awg": 18}}, "marks": [], "stops": [{"id": "s0", "at_m": {"on": null, "how": "seen", "value": 0}, "place": "cab"}, {"id": "s1", "at_m": {"on": null, "how": "seen", "value": 60}, "place": "b1"}, {"id": "s2", "at_m": {"on": null, "how": "reported", "low": 98, "high": 102}, "place": "b2"}], "filler": "", "warmer_K": 0, "condition": {"note": "", "since": null, "state": "sound"}, "installed": null}}, "places": {"b1": {"lid": "", "tag": "B1", "kind": "valve_box", "name": "", "found": "found", "marker": "", "depth_m": null, "foundAt": null, "position": null, "condition": {"note": "", "since": null, "state": "sound"}}, "b2": {"lid": "", "tag": "B2", "kind": "valve_box", "name": "", "found": "found", "marker": "", "depth_m": null, "foundAt": null, "position": null, "condition": {"note": "", "since": null, "state": "sound"}}, "cab": {"lid": "", "tag": "CAB", "kind": "cabinet", "name": "", "found": "found", "marker": "", "depth_m": null, "foundAt": null, "position": null, "condition": {"note": "", "since": null, "state": "sound"}}}, "devices": {"mv": {"tag": "MV", "kind": "coil", "name": "", "leads": {}, "place": "b1", "address": null, "coilKind": "ac", "condition": {"note": "", "since": null, "state": "sound"}, "installed": null}, "v1": {"tag": "V1", "kind": "coil", "name": "", "leads": {}, "place": "b1", "address": null, "coilKind": "ac", "condition": {"note": "", "since": null, "state": "sound"}, "installed": null}, "v2": {"tag": "V2", "kind": "coil", "name": "", "leads": {}, "place": "b2", "address": null, "coilKind": "ac", "condition": {"note": "", "since": null, "state": "sound"}, "installed": null}}, "splices": {"b1mv": {"ends": [{"core": "orange", "kind": "core", "side": "arrives", "stop": "s1", "cable": "k"}, {"kind": "port", "port": "a", "device": "mv"}], "made": null, "place": "b1", "ticks": [], "condition": {"note": "", "since": null, "state": "sound"}, "connector": "gel_nut"}, "b1v1": {"ends": [{"core": "red", "kind": "core", "side": "arrives", "stop": "s1", "cable": "k"}, {"kind": "port", "port": "a", "device": "v1"}], "made": null, "place": "b1", "ticks": [], "condition": {"note": "", "since": null, "state": "sound"}, "connector": "gel_nut"}, "b2v2": {"ends": [{"core": "blue", "kind": "core", "side": "arrives", "stop": "s2", "cable": "k"}, {"kind": "port", "port": "a", "device": "v2"}], "made": null, "place": "b2", "ticks": [], "condition": {"note": "", "since": null, "state": "sound"}, "connector": "gel_nut"}, "land1": {"ends": [{"kind": "terminal", "terminal": "t1", "controller": "a"}, {"core": "red", "kind": "core", "side": "leaves", "stop": "s0", "cable": "k"}], "made": null, "place": "cab", "ticks": [], "condition": {"note": "", "since": null, "state": "sound"}, "connector": "terminal"}, "land2": {"ends": [{"kind": "terminal", "terminal": "t2", "controller": "a"}, {"core": "blue", "kind": "core", "side": "leaves", "stop": "s0", "cable": "k"}], "made": null, "place": "cab", "ticks": [], "condition": {"note": "", "since": null, "state": "sound"}, "connector": "terminal"}, "landC": {"ends": [{"kind": "terminal", "terminal": "c", "controller": "a"}, {"core": "white", "kind": "core", "side": "leaves", "stop": "s0", "cable": "k"}], "made": null, "place": "cab", "ticks": [], "condition": {"note": "", "since": null, "state": "sound"}, "connector": "terminal"}, "landMV": {"ends": [{"kind": "terminal", "terminal": "mv", "controller": "a"}, {"core": "orange", "kind": "core", "side": "leaves", "stop": "s0", "cable": "k"}], "made": null, "place": "cab", "ticks": [], "condition": {"note": "", "since": null, "state": "sound"}, "connector": "terminal"}, "b1common": {"ends": [{"core": "white", "kind": "core", "side": "arrives", "stop": "s1", "cable": "k"}, {"core": "white", "kind": "core", "side": "leaves", "stop": "s1", "cable": "k"}, {"kind": "port", "port": "b", "device": "mv"}, {"kind": "port", "port": "b", "device": "v1"}], "made": null, "place": "b1", "ticks": [], "condition": {"note": "", "since": null, "state": "sound"}, "connector": "nut_and_gel_tube"}, "b2common": {"ends": [{"core": "white", "kind": "core", "side": "arrives", "stop": "s2", "cable": "k"}, {"kind": "port", "port": "b", "device": "v2"}], "made": null, "place": "b2", "ticks": [], "condition": {"note": "", "since": null, "state": "sound"}, "connector": "gel_nut"}}, "settings": {"units": {"length": "m", "temperature": "C"}, "coil_C": null, "market": "awg", "sizing": {"school": "coil_minimum", "together": 1, "hottest_C": 30, "allowedDrop": {"unit": "V", "value": 4}, "mainsLow_ratio": 0.1}, "wiring": {"colours": [], "jackets": [], "connectors": [], "manyCommons": "chain", "sparesLeast": 2, "spares_ratio": 0.2, "multicoreMost": 12, "multicoreFarthest_m": 150}, "V_open_V": 27, "ground_C": 20, "mains_Hz": 60, "material": {"stock": [], "spools_m": [], "reserve_ratio": 0.1, "slackPerEnd_m": 1.5, "expansion_ratio": 0.02}, "lightning": "ordinary", "commonColour": "white", "ruleOfThumb_ohm": {"low": 20, "high": 60}, "soundSplice_ohm": 0.03, "coilTolerance_ratio": 0.08, "lengthTolerance_ratio": 0.05, "soundSpliceSpread_ohm": 0.02}, "stations": {"one": {"name": "Front lawn", "zone": "", "valves": ["v1"], "terminal": "t1", "controller": "a", "withMaster": true, "pointOfConnection": null}, "two": {"name": "Back lawn", "zone": "", "valves": ["v2"], "terminal": "t2", "controller": "a", "withMaster": true, "pointOfConnection": null}}, "coilKinds": {"ac": {"name": "Plain AC coil", "current": "ac", "rated_V": 24, "inrush_A": 0.4, "rated_Hz": 60, "holding_A": 0.23, "inrush_pf": null, "minimum_V": 19, "holding_pf": null, "holdMinimum_V": 15, "resistance_ohm": 34}}, "underlays": {}, "controllers": {"a": {"tag": "A", "bays": [], "kind": "conventional", "name": "Court", "place": "cab", "indoor": null, "sensor": {"dry": "unknown", "note": "", "closedBy": "unknown"}, "lockable": null, "condition": {"note": "", "since": null, "state": "sound"}, "terminals": {"c": {"tag": "C", "role": "common", "label": "", "order": 0}, "mv": {"tag": "MV", "role": "master", "label": "", "order": 1}, "t1": {"tag": "1", "role": "station", "label": "", "order": 2}, "t2": {"tag": "2", "role": "station", "label": "", "order": 3}}, "remotePort": null, "commonHolds": 1, "masterFirst": false, "transformer": null, "fixedStations": null, "masterLimit_A": 0.28}}, "pointsOfConnection": {"main": {"name": "Street main", "reached": {"pumpRelay": "direct", "flowSensor": "direct", "masterValve": "direct"}, "terminal": {"terminal": "mv", "controller": "a"}, "pumpRelay": null, "flowSensor": null, "masterRest": "closed", "masterValve": "mv"}}}', '00000000-0000-7000-8000-000000000001', 1);
INSERT INTO public.snapshots VALUES ('0198f2a0-4b7e-7c31-9d52-6a1f0c3e5b99', 50, '{"about": {"name": "Small court", "origin": null, "contractor": ""}, "cables": {"k": {"tag": "K", "kind": "multicore", "name": "", "bends": {}, "cores": {"red": {"cutAt": ["s1"], "gauge": null, "order": 0, "colour": {"on": null, "how": "seen", "value": "red"}, "pinned": null, "colourAt": {}, "condition": {"note": "", "since": null, "state": "sound"}, "conditions": {}}, "blue": {"cutAt": [], "gauge": null, "order": 0, "colour": {"on": null, "how": "seen", "value": "blue"}, "pinned": null, "colourAt": {}, "condition": {"note": "", "since": null, "state": "sound"}, "conditions": {}}, "green": {"cutAt": [], "gauge": null, "order": 0, "colour": {"on": null, "how": "seen", "value": "green"}, "pinned": null, "colourAt": {}, "condition": {"note": "", "since": null, "state": "sound"}, "conditions": {}}, "white": {"cutAt": ["s1"], "gauge": null, "order": 0, "colour": {"on": null, "how": "seen", "value": "white"}, "pinned": null, "colourAt": {}, "condition": {"note": "", "since": null, "state": "sound"}, "conditions": {}}, "orange": {"cutAt": ["s1"], "gauge": null, "order": 0, "colour": {"on": null, "how": "seen", "value": "orange"}, "pinned": null, "colourAt": {}, "condition": {"note": "", "since": null, "state": "sound"}, "conditions": {}}}, "gauge": {"on": null, "how": "seen", "value": {"awg": 18}}, "marks": [], "stops": [{"id": "s0", "at_m": {"on": null, "how": "seen", "value": 0}, "place": "cab"}, {"id": "s1", "at_m": {"on": null, "how": "seen", "value": 60}, "place": "b1"}, {"id": "s2", "at_m": {"on": null, "how": "reported", "low": 98, "high": 102}, "place": "b2"}], "filler": "", "warmer_K": 0, "condition": {"note": "", "since": null, "state": "sound"}, "installed": null}}, "places": {"b1": {"lid": "", "tag": "B1", "kind": "valve_box", "name": "", "found": "found", "marker": "", "depth_m": null, "foundAt": null, "position": null, "condition": {"note": "", "since": null, "state": "sound"}}, "b2": {"lid": "", "tag": "B2", "kind": "valve_box", "name": "", "found": "found", "marker": "", "depth_m": null, "foundAt": null, "position": null, "condition": {"note": "", "since": null, "state": "sound"}}, "cab": {"lid": "", "tag": "CAB", "kind": "cabinet", "name": "", "found": "found", "marker": "", "depth_m": null, "foundAt": null, "position": null, "condition": {"note": "", "since": null, "state": "sound"}}}, "devices": {"mv": {"tag": "MV", "kind": "coil", "name": "", "leads": {}, "place": "b1", "address": null, "coilKind": "ac", "condition": {"note": "", "since": null, "state": "sound"}, "installed": null}, "v1": {"tag": "V1", "kind": "coil", "name": "", "leads": {}, "place": "b1", "address": null, "coilKind": "ac", "condition": {"note": "", "since": null, "state": "sound"}, "installed": null}, "v2": {"tag": "V2", "kind": "coil", "name": "", "leads": {}, "place": "b2", "address": null, "coilKind": "ac", "condition": {"note": "", "since": null, "state": "sound"}, "installed": null}}, "splices": {"b1mv": {"ends": [{"core": "orange", "kind": "core", "side": "arrives", "stop": "s1", "cable": "k"}, {"kind": "port", "port": "a", "device": "mv"}], "made": null, "place": "b1", "ticks": [], "condition": {"note": "", "since": null, "state": "sound"}, "connector": "gel_nut"}, "b1v1": {"ends": [{"core": "red", "kind": "core", "side": "arrives", "stop": "s1", "cable": "k"}, {"kind": "port", "port": "a", "device": "v1"}], "made": null, "place": "b1", "ticks": [], "condition": {"note": "", "since": null, "state": "sound"}, "connector": "gel_nut"}, "b2v2": {"ends": [{"core": "blue", "kind": "core", "side": "arrives", "stop": "s2", "cable": "k"}, {"kind": "port", "port": "a", "device": "v2"}], "made": null, "place": "b2", "ticks": [], "condition": {"note": "", "since": null, "state": "sound"}, "connector": "gel_nut"}, "land1": {"ends": [{"kind": "terminal", "terminal": "t1", "controller": "a"}, {"core": "red", "kind": "core", "side": "leaves", "stop": "s0", "cable": "k"}], "made": null, "place": "cab", "ticks": [], "condition": {"note": "", "since": null, "state": "sound"}, "connector": "terminal"}, "land2": {"ends": [{"kind": "terminal", "terminal": "t2", "controller": "a"}, {"core": "blue", "kind": "core", "side": "leaves", "stop": "s0", "cable": "k"}], "made": null, "place": "cab", "ticks": [], "condition": {"note": "", "since": null, "state": "sound"}, "connector": "terminal"}, "landC": {"ends": [{"kind": "terminal", "terminal": "c", "controller": "a"}, {"core": "white", "kind": "core", "side": "leaves", "stop": "s0", "cable": "k"}], "made": null, "place": "cab", "ticks": [], "condition": {"note": "", "since": null, "state": "sound"}, "connector": "terminal"}, "landMV": {"ends": [{"kind": "terminal", "terminal": "mv", "controller": "a"}, {"core": "orange", "kind": "core", "side": "leaves", "stop": "s0", "cable": "k"}], "made": null, "place": "cab", "ticks": [], "condition": {"note": "", "since": null, "state": "sound"}, "connector": "terminal"}, "b1common": {"ends": [{"core": "white", "kind": "core", "side": "arrives", "stop": "s1", "cable": "k"}, {"core": "white", "kind": "core", "side": "leaves", "stop": "s1", "cable": "k"}, {"kind": "port", "port": "b", "device": "mv"}, {"kind": "port", "port": "b", "device": "v1"}], "made": null, "place": "b1", "ticks": [], "condition": {"note": "", "since": null, "state": "sound"}, "connector": "nut_and_gel_tube"}, "b2common": {"ends": [{"core": "white", "kind": "core", "side": "arrives", "stop": "s2", "cable": "k"}, {"kind": "port", "port": "b", "device": "v2"}], "made": null, "place": "b2", "ticks": [], "condition": {"note": "", "since": null, "state": "sound"}, "connector": "gel_nut"}}, "settings": {"units": {"length": "m", "temperature": "C"}, "coil_C": null, "market": "awg", "sizing": {"school": "coil_minimum", "together": 1, "hottest_C": 30, "allowedDrop": {"unit": "V", "value": 4}, "mainsLow_ratio": 0.1}, "wiring": {"colours": [], "jackets": [], "connectors": [], "manyCommons": "chain", "sparesLeast": 2, "spares_ratio": 0.2, "multicoreMost": 12, "multicoreFarthest_m": 150}, "V_open_V": 27, "ground_C": 20, "mains_Hz": 60, "material": {"stock": [], "spools_m": [], "reserve_ratio": 0.1, "slackPerEnd_m": 1.5, "expansion_ratio": 0.02}, "lightning": "ordinary", "commonColour": "white", "ruleOfThumb_ohm": {"low": 20, "high": 60}, "soundSplice_ohm": 0.03, "coilTolerance_ratio": 0.08, "lengthTolerance_ratio": 0.05, "soundSpliceSpread_ohm": 0.02}, "stations": {"one": {"name": "Bed 50", "zone": "", "valves": ["v1"], "terminal": "t1", "controller": "a", "withMaster": true, "pointOfConnection": null}, "two": {"name": "Back lawn", "zone": "", "valves": ["v2"], "terminal": "t2", "controller": "a", "withMaster": true, "pointOfConnection": null}}, "coilKinds": {"ac": {"name": "Plain AC coil", "current": "ac", "rated_V": 24, "inrush_A": 0.4, "rated_Hz": 60, "holding_A": 0.23, "inrush_pf": null, "minimum_V": 19, "holding_pf": null, "holdMinimum_V": 15, "resistance_ohm": 34}}, "underlays": {}, "controllers": {"a": {"tag": "A", "bays": [], "kind": "conventional", "name": "Court", "place": "cab", "indoor": null, "sensor": {"dry": "unknown", "note": "", "closedBy": "unknown"}, "lockable": null, "condition": {"note": "", "since": null, "state": "sound"}, "terminals": {"c": {"tag": "C", "role": "common", "label": "", "order": 0}, "mv": {"tag": "MV", "role": "master", "label": "", "order": 1}, "t1": {"tag": "1", "role": "station", "label": "", "order": 2}, "t2": {"tag": "2", "role": "station", "label": "", "order": 3}}, "remotePort": null, "commonHolds": 1, "masterFirst": false, "transformer": null, "fixedStations": null, "masterLimit_A": 0.28}}, "pointsOfConnection": {"main": {"name": "Street main", "reached": {"pumpRelay": "direct", "flowSensor": "direct", "masterValve": "direct"}, "terminal": {"terminal": "mv", "controller": "a"}, "pumpRelay": null, "flowSensor": null, "masterRest": "closed", "masterValve": "mv"}}}', '00000000-0000-7000-8000-000000000001', 1);
INSERT INTO public.users VALUES ('00000000-0000-7000-8000-000000000002', '00000000-0000-7000-8000-000000000001', 'This crew');
SELECT pg_catalog.setval('public.attention_wanted_number_seq', 1, true);
ALTER TABLE ONLY public.attention
    ADD CONSTRAINT attention_pkey PRIMARY KEY (company, property);
ALTER TABLE ONLY public.attention_wanted
    ADD CONSTRAINT attention_wanted_pkey PRIMARY KEY (company, property, number);
ALTER TABLE ONLY public.attention_words
    ADD CONSTRAINT attention_words_pkey PRIMARY KEY (company, property);
ALTER TABLE ONLY public.batches
    ADD CONSTRAINT batches_company_property_revision_key UNIQUE (company, property, revision);
ALTER TABLE ONLY public.batches
    ADD CONSTRAINT batches_pkey PRIMARY KEY (company, property, id);
ALTER TABLE ONLY public.companies
    ADD CONSTRAINT companies_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.company_records
    ADD CONSTRAINT company_records_pkey PRIMARY KEY (company, kind);
ALTER TABLE ONLY public.facts
    ADD CONSTRAINT facts_pkey PRIMARY KEY (company, property, kind, id);
ALTER TABLE ONLY public.kysely_migration_lock
    ADD CONSTRAINT kysely_migration_lock_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.kysely_migration
    ADD CONSTRAINT kysely_migration_pkey PRIMARY KEY (name);
ALTER TABLE ONLY public.markers
    ADD CONSTRAINT markers_pkey PRIMARY KEY (name);
ALTER TABLE ONLY public.part_lives
    ADD CONSTRAINT part_lives_pkey PRIMARY KEY (company, property);
ALTER TABLE ONLY public.pictures
    ADD CONSTRAINT pictures_pkey PRIMARY KEY (company, property, sha256);
ALTER TABLE ONLY public.procedures
    ADD CONSTRAINT procedures_pkey PRIMARY KEY (company, id);
ALTER TABLE ONLY public.properties
    ADD CONSTRAINT properties_pkey PRIMARY KEY (company, id);
ALTER TABLE ONLY public.snapshots
    ADD CONSTRAINT snapshots_pkey PRIMARY KEY (company, property, revision);
ALTER TABLE ONLY public.users
    ADD CONSTRAINT users_pkey PRIMARY KEY (id);
CREATE INDEX attention_in_order ON public.attention USING btree (company, name COLLATE "und-x-icu", property) INCLUDE (folded, updated_at, last_visit, visit_due, astray, faults, findings, creeps_on, temporary_until, quotes) WHERE (NOT archived);
CREATE INDEX attention_words_by_word ON public.attention_words USING gin (words);
CREATE INDEX facts_by_owner ON public.facts USING btree (company, property, owner_kind, owner);
CREATE INDEX facts_by_time ON public.facts USING btree (company, property, kind, at DESC);
CREATE TRIGGER attention_follows AFTER INSERT OR UPDATE OF name, updated_at, archived_at ON public.properties FOR EACH ROW EXECUTE FUNCTION public.attention_follows();
ALTER TABLE ONLY public.attention
    ADD CONSTRAINT attention_company_property_fkey FOREIGN KEY (company, property) REFERENCES public.properties(company, id) ON DELETE CASCADE;
ALTER TABLE ONLY public.attention_wanted
    ADD CONSTRAINT attention_wanted_company_property_fkey FOREIGN KEY (company, property) REFERENCES public.properties(company, id) ON DELETE CASCADE;
ALTER TABLE ONLY public.attention_words
    ADD CONSTRAINT attention_words_company_property_fkey FOREIGN KEY (company, property) REFERENCES public.properties(company, id) ON DELETE CASCADE;
ALTER TABLE ONLY public.batches
    ADD CONSTRAINT batches_author_fkey FOREIGN KEY (author) REFERENCES public.users(id);
ALTER TABLE ONLY public.batches
    ADD CONSTRAINT batches_company_fkey FOREIGN KEY (company) REFERENCES public.companies(id);
ALTER TABLE ONLY public.batches
    ADD CONSTRAINT batches_company_property_fkey FOREIGN KEY (company, property) REFERENCES public.properties(company, id) ON DELETE CASCADE;
ALTER TABLE ONLY public.batches
    ADD CONSTRAINT batches_company_property_undoes_fkey FOREIGN KEY (company, property, undoes) REFERENCES public.batches(company, property, id) ON DELETE CASCADE DEFERRABLE;
ALTER TABLE ONLY public.company_records
    ADD CONSTRAINT company_records_author_fkey FOREIGN KEY (author) REFERENCES public.users(id);
ALTER TABLE ONLY public.company_records
    ADD CONSTRAINT company_records_company_fkey FOREIGN KEY (company) REFERENCES public.companies(id);
ALTER TABLE ONLY public.facts
    ADD CONSTRAINT facts_author_fkey FOREIGN KEY (author) REFERENCES public.users(id);
ALTER TABLE ONLY public.facts
    ADD CONSTRAINT facts_company_property_fkey FOREIGN KEY (company, property) REFERENCES public.properties(company, id) ON DELETE CASCADE;
ALTER TABLE ONLY public.facts
    ADD CONSTRAINT facts_company_property_owner_kind_owner_fkey FOREIGN KEY (company, property, owner_kind, owner) REFERENCES public.facts(company, property, kind, id) ON DELETE CASCADE DEFERRABLE;
ALTER TABLE ONLY public.part_lives
    ADD CONSTRAINT part_lives_company_property_fkey FOREIGN KEY (company, property) REFERENCES public.properties(company, id) ON DELETE CASCADE;
ALTER TABLE ONLY public.pictures
    ADD CONSTRAINT pictures_author_fkey FOREIGN KEY (author) REFERENCES public.users(id);
ALTER TABLE ONLY public.pictures
    ADD CONSTRAINT pictures_company_fkey FOREIGN KEY (company) REFERENCES public.companies(id);
ALTER TABLE ONLY public.pictures
    ADD CONSTRAINT pictures_company_property_fkey FOREIGN KEY (company, property) REFERENCES public.properties(company, id) ON DELETE CASCADE;
ALTER TABLE ONLY public.procedures
    ADD CONSTRAINT procedures_author_fkey FOREIGN KEY (author) REFERENCES public.users(id);
ALTER TABLE ONLY public.procedures
    ADD CONSTRAINT procedures_company_fkey FOREIGN KEY (company) REFERENCES public.companies(id);
ALTER TABLE ONLY public.properties
    ADD CONSTRAINT properties_author_fkey FOREIGN KEY (author) REFERENCES public.users(id);
ALTER TABLE ONLY public.properties
    ADD CONSTRAINT properties_company_fkey FOREIGN KEY (company) REFERENCES public.companies(id);
ALTER TABLE ONLY public.snapshots
    ADD CONSTRAINT snapshots_company_property_fkey FOREIGN KEY (company, property) REFERENCES public.properties(company, id) ON DELETE CASCADE;
ALTER TABLE ONLY public.users
    ADD CONSTRAINT users_company_fkey FOREIGN KEY (company) REFERENCES public.companies(id);
ALTER TABLE public.attention ENABLE ROW LEVEL SECURITY;
ALTER TABLE public.attention_wanted ENABLE ROW LEVEL SECURITY;
ALTER TABLE public.attention_words ENABLE ROW LEVEL SECURITY;
ALTER TABLE public.batches ENABLE ROW LEVEL SECURITY;
ALTER TABLE public.company_records ENABLE ROW LEVEL SECURITY;
ALTER TABLE public.facts ENABLE ROW LEVEL SECURITY;
CREATE POLICY own_company ON public.attention USING ((company = (NULLIF(current_setting('fieldthread.company'::text, true), ''::text))::uuid)) WITH CHECK ((company = (NULLIF(current_setting('fieldthread.company'::text, true), ''::text))::uuid));
CREATE POLICY own_company ON public.attention_wanted USING ((company = (NULLIF(current_setting('fieldthread.company'::text, true), ''::text))::uuid)) WITH CHECK ((company = (NULLIF(current_setting('fieldthread.company'::text, true), ''::text))::uuid));
CREATE POLICY own_company ON public.attention_words USING ((company = (NULLIF(current_setting('fieldthread.company'::text, true), ''::text))::uuid)) WITH CHECK ((company = (NULLIF(current_setting('fieldthread.company'::text, true), ''::text))::uuid));
CREATE POLICY own_company ON public.batches USING ((company = (NULLIF(current_setting('fieldthread.company'::text, true), ''::text))::uuid)) WITH CHECK ((company = (NULLIF(current_setting('fieldthread.company'::text, true), ''::text))::uuid));
CREATE POLICY own_company ON public.company_records USING ((company = (NULLIF(current_setting('fieldthread.company'::text, true), ''::text))::uuid)) WITH CHECK ((company = (NULLIF(current_setting('fieldthread.company'::text, true), ''::text))::uuid));
CREATE POLICY own_company ON public.facts USING ((company = (NULLIF(current_setting('fieldthread.company'::text, true), ''::text))::uuid)) WITH CHECK ((company = (NULLIF(current_setting('fieldthread.company'::text, true), ''::text))::uuid));
CREATE POLICY own_company ON public.part_lives USING ((company = (NULLIF(current_setting('fieldthread.company'::text, true), ''::text))::uuid)) WITH CHECK ((company = (NULLIF(current_setting('fieldthread.company'::text, true), ''::text))::uuid));
CREATE POLICY own_company ON public.pictures USING ((company = (NULLIF(current_setting('fieldthread.company'::text, true), ''::text))::uuid)) WITH CHECK ((company = (NULLIF(current_setting('fieldthread.company'::text, true), ''::text))::uuid));
CREATE POLICY own_company ON public.procedures USING ((company = (NULLIF(current_setting('fieldthread.company'::text, true), ''::text))::uuid)) WITH CHECK ((company = (NULLIF(current_setting('fieldthread.company'::text, true), ''::text))::uuid));
CREATE POLICY own_company ON public.properties USING ((company = (NULLIF(current_setting('fieldthread.company'::text, true), ''::text))::uuid)) WITH CHECK ((company = (NULLIF(current_setting('fieldthread.company'::text, true), ''::text))::uuid));
CREATE POLICY own_company ON public.snapshots USING ((company = (NULLIF(current_setting('fieldthread.company'::text, true), ''::text))::uuid)) WITH CHECK ((company = (NULLIF(current_setting('fieldthread.company'::text, true), ''::text))::uuid));
CREATE POLICY own_company ON public.users USING ((company = (NULLIF(current_setting('fieldthread.company'::text, true), ''::text))::uuid)) WITH CHECK ((company = (NULLIF(current_setting('fieldthread.company'::text, true), ''::text))::uuid));
ALTER TABLE public.part_lives ENABLE ROW LEVEL SECURITY;
ALTER TABLE public.pictures ENABLE ROW LEVEL SECURITY;
ALTER TABLE public.procedures ENABLE ROW LEVEL SECURITY;
ALTER TABLE public.properties ENABLE ROW LEVEL SECURITY;
ALTER TABLE public.snapshots ENABLE ROW LEVEL SECURITY;
ALTER TABLE public.users ENABLE ROW LEVEL SECURITY;
GRANT USAGE ON SCHEMA public TO fieldthread_app;
GRANT SELECT,INSERT,DELETE,UPDATE ON TABLE public.attention TO fieldthread_app;
GRANT SELECT,INSERT,DELETE,UPDATE ON TABLE public.attention_wanted TO fieldthread_app;
GRANT SELECT,INSERT,DELETE,UPDATE ON TABLE public.attention_words TO fieldthread_app;
GRANT SELECT,INSERT,DELETE,UPDATE ON TABLE public.batches TO fieldthread_app;
GRANT SELECT,INSERT,DELETE,UPDATE ON TABLE public.companies TO fieldthread_app;
GRANT SELECT,INSERT,DELETE,UPDATE ON TABLE public.company_records TO fieldthread_app;
GRANT SELECT,INSERT,DELETE,UPDATE ON TABLE public.facts TO fieldthread_app;
GRANT SELECT,INSERT,DELETE,UPDATE ON TABLE public.kysely_migration TO fieldthread_app;
GRANT SELECT,INSERT,DELETE,UPDATE ON TABLE public.kysely_migration_lock TO fieldthread_app;
GRANT SELECT,INSERT,DELETE,UPDATE ON TABLE public.markers TO fieldthread_app;
GRANT SELECT,INSERT,DELETE,UPDATE ON TABLE public.part_lives TO fieldthread_app;
GRANT SELECT,INSERT,DELETE,UPDATE ON TABLE public.pictures TO fieldthread_app;
GRANT SELECT,INSERT,DELETE,UPDATE ON TABLE public.procedures TO fieldthread_app;
GRANT SELECT,INSERT,DELETE,UPDATE ON TABLE public.properties TO fieldthread_app;
GRANT SELECT,INSERT,DELETE,UPDATE ON TABLE public.snapshots TO fieldthread_app;
GRANT SELECT,INSERT,DELETE,UPDATE ON TABLE public.users TO fieldthread_app;
