BEGIN TRANSACTION;
CREATE TABLE alembic_version (
	version_num VARCHAR(32) NOT NULL, 
	CONSTRAINT alembic_version_pkc PRIMARY KEY (version_num)
);
INSERT INTO "alembic_version" VALUES('0006');
CREATE TABLE cards (
	learner_id VARCHAR(32) NOT NULL, 
	about VARCHAR(80) NOT NULL, 
	box INTEGER NOT NULL, 
	due DATE NOT NULL, 
	"right" INTEGER NOT NULL, 
	wrong INTEGER NOT NULL, 
	last DATE NOT NULL, 
	CONSTRAINT pk_cards PRIMARY KEY (learner_id, about), 
	CONSTRAINT fk_cards_learner_id FOREIGN KEY(learner_id) REFERENCES learners (id) ON DELETE CASCADE
);
CREATE TABLE changes (
	id INTEGER NOT NULL, 
	rig_id VARCHAR(32) NOT NULL, 
	revision INTEGER NOT NULL, 
	at DATETIME NOT NULL, 
	what TEXT NOT NULL, 
	gesture VARCHAR(64), 
	"before" TEXT NOT NULL, 
	"after" TEXT NOT NULL, 
	CONSTRAINT pk_changes PRIMARY KEY (id), 
	CONSTRAINT uq_changes_rig_id UNIQUE (rig_id, revision), 
	CONSTRAINT fk_changes_rig_id FOREIGN KEY(rig_id) REFERENCES rigs (id) ON DELETE CASCADE
);
INSERT INTO "changes" VALUES(1,'639a2dc67eab46f1a72f3ac8d18f5782',1,'2026-11-30 03:40:57.395041','GVWR','g1','{"vehicle":[{"op":"remove","path":"/entered"},{"op":"add","path":"/ratings/gvwr","value":7000}]}','{"vehicle":[{"op":"add","path":"/entered","value":{"ratings.gvwr":{"text":"7,1oo"}}},{"op":"remove","path":"/ratings/gvwr"}]}');
INSERT INTO "changes" VALUES(2,'639a2dc67eab46f1a72f3ac8d18f5782',2,'2026-11-30 03:40:57.423508','take out the table',NULL,'{"rig":[{"op":"add","path":"/loads/0","value":{"name":"folding table","on":"vehicle","mass":40}}]}','{"rig":[{"op":"remove","path":"/loads/0"}]}');
INSERT INTO "changes" VALUES(3,'639a2dc67eab46f1a72f3ac8d18f5782',3,'2026-11-30 03:40:57.450565','delete the weigh-in',NULL,'{"1":{"date":"2026-05-02","scale":{"kind":"truck_scale","resolution":20},"passes":[{"config":"hitched","readings":{"front":2580,"rear":3680,"trailer":7320},"spring_bars":"engaged"},{"config":"hitched","readings":{"front":2440,"rear":3880,"trailer":7260},"spring_bars":"slack"},{"config":"vehicle_only","readings":{"front":2760,"rear":2600}}],"place":"scale 2"}}','{"1":null}');
INSERT INTO "changes" VALUES(4,'639a2dc67eab46f1a72f3ac8d18f5782',4,'2026-11-30 03:40:57.503054','ticket',NULL,'{"3":null}','{"3":{"place":"jotted"}}');
CREATE TABLE edits (
	rig_id VARCHAR(32) NOT NULL, 
	number INTEGER NOT NULL, 
	page VARCHAR(64), 
	did TEXT NOT NULL, 
	CONSTRAINT pk_edits PRIMARY KEY (rig_id, number), 
	CONSTRAINT fk_edits_rig_id FOREIGN KEY(rig_id) REFERENCES rigs (id) ON DELETE CASCADE
);
INSERT INTO "edits" VALUES('639a2dc67eab46f1a72f3ac8d18f5782',1,NULL,'{"splices":[],"touched":[["vehicle","ratings","gvwr"],["vehicle","entered"]],"all":false}');
INSERT INTO "edits" VALUES('639a2dc67eab46f1a72f3ac8d18f5782',2,NULL,'{"splices":[["rig","loads",0,1,0]],"touched":[],"all":false}');
INSERT INTO "edits" VALUES('639a2dc67eab46f1a72f3ac8d18f5782',3,NULL,'{"splices":[],"touched":[["1"]],"all":false}');
INSERT INTO "edits" VALUES('639a2dc67eab46f1a72f3ac8d18f5782',4,NULL,'{"splices":[],"touched":[["3"]],"all":false}');
CREATE TABLE guides (
	id VARCHAR(32) NOT NULL, 
	name VARCHAR(120) NOT NULL, 
	unit VARCHAR(2) NOT NULL, 
	text TEXT NOT NULL, 
	created_at DATETIME NOT NULL, 
	CONSTRAINT pk_guides PRIMARY KEY (id)
);
CREATE TABLE learners (
	id VARCHAR(32) NOT NULL, 
	name VARCHAR(60) NOT NULL, 
	created_at DATETIME NOT NULL, 
	CONSTRAINT pk_learners PRIMARY KEY (id), 
	CONSTRAINT uq_learners_name UNIQUE (name)
);
CREATE TABLE log_facts (
	weigh_in_id INTEGER NOT NULL, 
	words TEXT NOT NULL, 
	basis VARCHAR(64), 
	facts TEXT, 
	CONSTRAINT pk_log_facts PRIMARY KEY (weigh_in_id), 
	CONSTRAINT fk_log_facts_weigh_in_id FOREIGN KEY(weigh_in_id) REFERENCES weigh_ins (id) ON DELETE CASCADE
);
INSERT INTO "log_facts" VALUES(1,'2026-05-02
scale 1',NULL,NULL);
INSERT INTO "log_facts" VALUES(3,'2026-05-02
scale 3',NULL,NULL);
INSERT INTO "log_facts" VALUES(4,'jotted',NULL,NULL);
CREATE TABLE notes (
	rig_id VARCHAR(32) NOT NULL, 
	weigh_in INTEGER NOT NULL, 
	document TEXT NOT NULL, 
	CONSTRAINT pk_notes PRIMARY KEY (rig_id, weigh_in), 
	CONSTRAINT fk_notes_rig_id FOREIGN KEY(rig_id) REFERENCES rigs (id) ON DELETE CASCADE
);
INSERT INTO "notes" VALUES('639a2dc67eab46f1a72f3ac8d18f5782',2,'{"sway": "none", "note": "after scale 3"}');
CREATE TABLE own_lines (
	id INTEGER NOT NULL, 
	rig_id VARCHAR(32) NOT NULL, 
	text TEXT NOT NULL, 
	trip BOOLEAN NOT NULL, 
	done_at DATETIME, 
	done_by TEXT, 
	CONSTRAINT pk_own_lines PRIMARY KEY (id), 
	CONSTRAINT fk_own_lines_rig_id FOREIGN KEY(rig_id) REFERENCES rigs (id) ON DELETE CASCADE
);
INSERT INTO "own_lines" VALUES(1,'639a2dc67eab46f1a72f3ac8d18f5782','Telescope lashed',0,NULL,NULL);
CREATE TABLE photos (
	id VARCHAR(64) NOT NULL, 
	rig_id VARCHAR(32) NOT NULL, 
	about VARCHAR(300) NOT NULL, 
	weigh_in INTEGER, 
	visit VARCHAR(64), 
	width INTEGER NOT NULL, 
	height INTEGER NOT NULL, 
	added_at DATETIME NOT NULL, 
	picture BLOB NOT NULL, 
	small BLOB NOT NULL, 
	CONSTRAINT pk_photos PRIMARY KEY (id), 
	CONSTRAINT fk_photos_rig_id FOREIGN KEY(rig_id) REFERENCES rigs (id) ON DELETE CASCADE
);
INSERT INTO "photos" VALUES('p1','639a2dc67eab46f1a72f3ac8d18f5782','ticket',2,NULL,4,3,'2026-11-30 03:40:57.481020',X'6A706567',X'6A706567');
CREATE TABLE received (
	"key" VARCHAR(64) NOT NULL, 
	rig_id VARCHAR(32) NOT NULL, 
	visit VARCHAR(64) NOT NULL, 
	weigh_in INTEGER NOT NULL, 
	CONSTRAINT pk_received PRIMARY KEY ("key"), 
	CONSTRAINT fk_received_rig_id FOREIGN KEY(rig_id) REFERENCES rigs (id) ON DELETE CASCADE
);
INSERT INTO "received" VALUES('t1','639a2dc67eab46f1a72f3ac8d18f5782','v1',3);
CREATE TABLE rigs (
	id VARCHAR(32) NOT NULL, 
	name TEXT NOT NULL, 
	document TEXT NOT NULL, 
	revision INTEGER NOT NULL, 
	created_at DATETIME NOT NULL, 
	updated_at DATETIME NOT NULL, 
	deleted_at DATETIME, vehicle_id VARCHAR(32) REFERENCES things (id), hitch_id VARCHAR(32) REFERENCES things (id), trailer_id VARCHAR(32) REFERENCES things (id), checksum VARCHAR(16), edits INTEGER DEFAULT '0' NOT NULL, example BOOLEAN DEFAULT 0 NOT NULL, 
	CONSTRAINT pk_rigs PRIMARY KEY (id)
);
INSERT INTO "rigs" VALUES('639a2dc67eab46f1a72f3ac8d18f5782','three passes','{"format":"noxel-rig","version":1,"units":{"mass":"lb","length":"in"},"name":"three passes","kind":"conventional","loads":[{"name":"battery bank","on":"trailer","mass":60,"position":80}]}',4,'2026-11-30 03:40:57.315245','2026-11-30 03:40:57.500971',NULL,'3a36a66834c4499a89e91080ca438094','13d22c2d14e045b48d03a8f14dcf7c8e','c3a9b7fdf5d44705bbb66bd5767720cd','a7c6350db8a651c1',4,0);
CREATE TABLE saves (
	id INTEGER NOT NULL, 
	count INTEGER NOT NULL, 
	CONSTRAINT pk_saves PRIMARY KEY (id)
);
INSERT INTO "saves" VALUES(1,8);
CREATE TABLE things (
	id VARCHAR(32) NOT NULL, 
	kind VARCHAR(16) NOT NULL, 
	name TEXT NOT NULL, 
	document TEXT NOT NULL, 
	created_at DATETIME NOT NULL, 
	updated_at DATETIME NOT NULL, 
	retired_at DATETIME, checksum VARCHAR(16), 
	CONSTRAINT pk_things PRIMARY KEY (id)
);
INSERT INTO "things" VALUES('3a36a66834c4499a89e91080ca438094','vehicle','Bramble','{"units":{"mass":"lb","length":"in"},"part":{"name":"Bramble","ratings":{"gawr_front":2600,"gawr_rear":3600,"gcwr":16000,"tow_rating":11450,"payload":1658,"tongue_rating":1050},"curb_weight":4657,"geometry":{"wheelbase":155.9,"hitch_offset":50.5},"tires":{"front":{"count":2,"max_load":1650},"rear":{"count":2,"max_load":2150}},"entered":{"ratings.gvwr":{"text":"7,1oo"}}}}','2026-11-30 03:40:57.331519','2026-11-30 03:40:57.389513',NULL,'6ef0fb4261fcb5f8');
INSERT INTO "things" VALUES('13d22c2d14e045b48d03a8f14dcf7c8e','hitch','','{"units":{"mass":"lb","length":"in"},"part":{"weight":95,"weight_distribution":true,"parts":[{"kind":"receiver","trailer":{"carrying":8800,"distributing":11900},"tongue":{"carrying":600,"distributing":1400}},{"kind":"ball mount","trailer":10650,"tongue":1400},{"kind":"ball","trailer":9050}]}}','2026-11-30 03:40:57.334165','2026-11-30 03:40:57.337607',NULL,'4e8baba8d0869aa5');
INSERT INTO "things" VALUES('c3a9b7fdf5d44705bbb66bd5767720cd','trailer','Hazel Hut','{"units":{"mass":"lb","length":"in"},"part":{"name":"Hazel Hut","ratings":{"gvwr":8700,"gawr":[4300,4300]},"dry_weight":7140,"dry_tongue":826,"geometry":{"coupler_to_axles":233.5}}}','2026-11-30 03:40:57.337721','2026-11-30 03:40:57.340479',NULL,'097655a85245b0fd');
CREATE TABLE visits (
	rig_id VARCHAR(32) NOT NULL, 
	document TEXT NOT NULL, 
	CONSTRAINT pk_visits PRIMARY KEY (rig_id), 
	CONSTRAINT fk_visits_rig_id FOREIGN KEY(rig_id) REFERENCES rigs (id) ON DELETE CASCADE
);
CREATE TABLE weigh_ins (
	id INTEGER NOT NULL, 
	rig_id VARCHAR(32) NOT NULL, 
	position INTEGER NOT NULL, 
	date DATE, 
	document TEXT NOT NULL, checksum VARCHAR(16), 
	CONSTRAINT pk_weigh_ins PRIMARY KEY (id), 
	CONSTRAINT uq_weigh_ins_rig_id UNIQUE (rig_id, position), 
	CONSTRAINT fk_weigh_ins_rig_id FOREIGN KEY(rig_id) REFERENCES rigs (id) ON DELETE CASCADE
);
INSERT INTO "weigh_ins" VALUES(1,'639a2dc67eab46f1a72f3ac8d18f5782',0,'2026-05-02','{"date":"2026-05-02","scale":{"kind":"truck_scale","resolution":20},"passes":[{"config":"hitched","readings":{"front":2580,"rear":3680,"trailer":7320},"spring_bars":"engaged"},{"config":"hitched","readings":{"front":2440,"rear":3880,"trailer":7260},"spring_bars":"slack"},{"config":"vehicle_only","readings":{"front":2760,"rear":2600}}],"place":"scale 1"}','a7290d2def01fb79');
INSERT INTO "weigh_ins" VALUES(3,'639a2dc67eab46f1a72f3ac8d18f5782',2,'2026-05-02','{"date":"2026-05-02","scale":{"kind":"truck_scale","resolution":20},"passes":[{"config":"hitched","readings":{"front":2580,"rear":3680,"trailer":7320},"spring_bars":"engaged"},{"config":"hitched","readings":{"front":2440,"rear":3880,"trailer":7260},"spring_bars":"slack"},{"config":"vehicle_only","readings":{"front":2760,"rear":2600}}],"place":"scale 3"}','1c6e8facf18a90e2');
INSERT INTO "weigh_ins" VALUES(4,'639a2dc67eab46f1a72f3ac8d18f5782',3,NULL,'{"place":"jotted"}','eb9756b730b3aa8f');
CREATE INDEX ix_rigs_updated_at ON rigs (updated_at);
CREATE INDEX ix_weigh_ins_rig_id ON weigh_ins (rig_id);
CREATE INDEX ix_changes_rig_id ON changes (rig_id);
CREATE INDEX ix_things_kind ON things (kind);
CREATE INDEX ix_rigs_vehicle_id ON rigs (vehicle_id);
CREATE INDEX ix_rigs_hitch_id ON rigs (hitch_id);
CREATE INDEX ix_rigs_trailer_id ON rigs (trailer_id);
CREATE INDEX ix_weigh_ins_rig_id_date ON weigh_ins (rig_id, date, position);
CREATE INDEX ix_received_rig_id ON received (rig_id);
CREATE INDEX ix_received_visit ON received (visit);
CREATE INDEX ix_photos_rig_id ON photos (rig_id);
CREATE INDEX ix_own_lines_rig_id ON own_lines (rig_id);
COMMIT;
