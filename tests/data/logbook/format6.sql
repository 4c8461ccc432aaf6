PRAGMA application_id = 1265528692;
PRAGMA user_version = 6;
PRAGMA foreign_keys=OFF;
BEGIN TRANSACTION;
CREATE TABLE setting(key TEXT PRIMARY KEY, value TEXT NOT NULL) WITHOUT ROWID;
CREATE TABLE test(
  id TEXT PRIMARY KEY,
  title TEXT NOT NULL,
  question TEXT NOT NULL DEFAULT '',
  created_at TEXT NOT NULL DEFAULT '',
  head TEXT NOT NULL
) WITHOUT ROWID;
INSERT INTO test VALUES('afe8d8b9-9697-89fb-ab9c-64cb5ac05845','s','Which one?','','{"format":"knotcount.test","version":1,"title":"s","question":"Which one?","player":"","created_at":"","stage":"test","players":[],"builds":[{"build":"Reed 53","note":"","id":"5b0c1f6e-0000-8000-a000-000000000000"},{"build":"Alder 62","note":"","id":"5b0c1f6e-0000-8000-a000-000000000001"}],"extra_columns":[],"card":{"kind":"own","factor":"","comparison":"against_baseline","baseline":"","primary":[],"want":{},"margins":{},"expectations":{},"sd_ratio_margin":1.25,"area_ratio_margin":1.5,"alpha":0.05,"looks":"none","planned_rounds":0,"held":[],"blinding":"open","alone":false,"sees":{"shots":"everyone","averages":"nobody","comparisons":"nobody"},"trend_column":"","factor_column":"","covariates":[],"set_aside_rule":"called","replace_set_aside":true,"good_shots":0,"shapes":[],"targets":[]},"plan":{"schedule":"rotated","rounds":5,"turn_length":3,"seed":"1","change_seconds":90.0,"shot_seconds":30.0,"warm_up":8,"rest_every":25,"rest_seconds":180.0,"change_times":[],"turns":[]},"seal":{},"guesses":[],"amendments":[],"frozen":{"at":"","hash":""}}');
INSERT INTO test VALUES('ce782182-d1e7-44e9-9b59-6ac79046783f','s','','','{"format":"knotcount.test","version":1,"title":"s","question":"","player":"","created_at":"","stage":"test","players":[],"builds":[{"build":"Reed 53","note":"","id":"5b0c1f6e-0000-8000-a000-000000000000"},{"build":"Alder 62","note":"","id":"5b0c1f6e-0000-8000-a000-000000000001"}],"extra_columns":[],"card":{"kind":"own","factor":"","comparison":"against_baseline","baseline":"","primary":[],"want":{},"margins":{},"expectations":{},"sd_ratio_margin":1.25,"area_ratio_margin":1.5,"alpha":0.05,"looks":"none","planned_rounds":0,"held":[],"blinding":"open","alone":false,"sees":{"shots":"everyone","averages":"nobody","comparisons":"nobody"},"trend_column":"","factor_column":"","covariates":[],"set_aside_rule":"called","replace_set_aside":true,"good_shots":0,"shapes":[],"targets":[]},"plan":{"schedule":"rotated","rounds":5,"turn_length":3,"seed":"1","change_seconds":90.0,"shot_seconds":30.0,"warm_up":8,"rest_every":25,"rest_seconds":180.0,"change_times":[],"turns":[]},"seal":{},"guesses":[],"amendments":[],"frozen":{"at":"","hash":""}}');
CREATE TABLE test_build(
  test_id TEXT NOT NULL REFERENCES test(id) ON DELETE CASCADE,
  position INTEGER NOT NULL,
  name TEXT NOT NULL, id text not null default '',
  PRIMARY KEY(test_id, position)
) WITHOUT ROWID;
INSERT INTO test_build VALUES('afe8d8b9-9697-89fb-ab9c-64cb5ac05845',0,'Reed 53','5b0c1f6e-0000-8000-a000-000000000000');
INSERT INTO test_build VALUES('afe8d8b9-9697-89fb-ab9c-64cb5ac05845',1,'Alder 62','5b0c1f6e-0000-8000-a000-000000000001');
INSERT INTO test_build VALUES('ce782182-d1e7-44e9-9b59-6ac79046783f',0,'Reed 53','5b0c1f6e-0000-8000-a000-000000000000');
INSERT INTO test_build VALUES('ce782182-d1e7-44e9-9b59-6ac79046783f',1,'Alder 62','5b0c1f6e-0000-8000-a000-000000000001');
CREATE TABLE sitting(
  test_id TEXT NOT NULL REFERENCES test(id) ON DELETE CASCADE,
  position INTEGER NOT NULL,
  label TEXT NOT NULL DEFAULT '',
  PRIMARY KEY(test_id, position)
) WITHOUT ROWID;
INSERT INTO sitting VALUES('afe8d8b9-9697-89fb-ab9c-64cb5ac05845',0,'');
INSERT INTO sitting VALUES('ce782182-d1e7-44e9-9b59-6ac79046783f',0,'');
CREATE TABLE turn(
  test_id TEXT NOT NULL,
  position INTEGER NOT NULL,
  sitting INTEGER NOT NULL,
  build INTEGER NOT NULL,
  round TEXT NOT NULL DEFAULT '',
  label TEXT NOT NULL DEFAULT '',
  player TEXT NOT NULL DEFAULT '',
  handed_over INTEGER NOT NULL DEFAULT 0,
  PRIMARY KEY(test_id, position),
  FOREIGN KEY(test_id, sitting) REFERENCES sitting(test_id, position) ON DELETE CASCADE,
  FOREIGN KEY(test_id, build) REFERENCES test_build(test_id, position) ON DELETE CASCADE
) WITHOUT ROWID;
INSERT INTO turn VALUES('afe8d8b9-9697-89fb-ab9c-64cb5ac05845',0,0,0,'1','','',0);
INSERT INTO turn VALUES('afe8d8b9-9697-89fb-ab9c-64cb5ac05845',1,0,1,'1','','',0);
INSERT INTO turn VALUES('afe8d8b9-9697-89fb-ab9c-64cb5ac05845',2,0,0,'2','','',0);
INSERT INTO turn VALUES('afe8d8b9-9697-89fb-ab9c-64cb5ac05845',3,0,1,'2','','',0);
INSERT INTO turn VALUES('ce782182-d1e7-44e9-9b59-6ac79046783f',0,0,0,'1','','',0);
INSERT INTO turn VALUES('ce782182-d1e7-44e9-9b59-6ac79046783f',1,0,1,'1','','',0);
INSERT INTO turn VALUES('ce782182-d1e7-44e9-9b59-6ac79046783f',2,0,0,'2','','',0);
INSERT INTO turn VALUES('ce782182-d1e7-44e9-9b59-6ac79046783f',3,0,1,'2','','',0);
CREATE TABLE player(
  id TEXT PRIMARY KEY,
  name TEXT NOT NULL,
  left_handed INTEGER NOT NULL DEFAULT 0,
  about TEXT NOT NULL
) WITHOUT ROWID;
CREATE TABLE test_player(
  test_id TEXT NOT NULL REFERENCES test(id) ON DELETE CASCADE,
  position INTEGER NOT NULL,
  player_id TEXT NOT NULL REFERENCES player(id),
  PRIMARY KEY(test_id, position)
) WITHOUT ROWID;
CREATE TABLE shot(
  test_id TEXT NOT NULL,
  position INTEGER NOT NULL,
  turn INTEGER NOT NULL,
  id INTEGER NOT NULL DEFAULT 0,
  number TEXT NOT NULL DEFAULT '',
  status TEXT NOT NULL CHECK(status = 'counted' OR status = 'set_aside' OR status = 'warm_up'),
  mark TEXT NOT NULL DEFAULT 'none' CHECK(mark = 'none' OR mark = 'club' OR mark = 'player' OR mark = 'day'),
  set_aside_when TEXT NOT NULL DEFAULT 'unknown'
    CHECK(set_aside_when = 'unknown' OR set_aside_when = 'called' OR set_aside_when = 'by_rule' OR
          set_aside_when = 'after_number' OR set_aside_when = 'after_reveal'),
  reason TEXT NOT NULL DEFAULT '',
  taken_at TEXT NOT NULL DEFAULT '',
  delivery TEXT NOT NULL DEFAULT '',
  called TEXT NOT NULL DEFAULT 'none'
    CHECK(called = 'none' OR called = 'good' OR called = 'so_so' OR called = 'bad'),
  feel INTEGER NOT NULL DEFAULT 0,
  note TEXT NOT NULL DEFAULT '',
  read_id TEXT NOT NULL DEFAULT '',
  extra TEXT NOT NULL DEFAULT '',
  modelled TEXT NOT NULL DEFAULT '',
  club_speed_ms REAL,
  ball_speed_ms REAL,
  smash REAL,
  attack_deg REAL,
  path_deg REAL,
  face_deg REAL,
  face_to_path_deg REAL,
  dynamic_loft_deg REAL,
  spin_loft_deg REAL,
  dynamic_lie_deg REAL,
  launch_deg REAL,
  launch_direction_deg REAL,
  spin_rpm REAL,
  spin_axis_deg REAL,
  carry_m REAL,
  total_m REAL,
  side_m REAL,
  curve_m REAL,
  apex_m REAL,
  descent_deg REAL,
  hang_s REAL,
  strike_toe_mm REAL,
  strike_high_mm REAL,
  PRIMARY KEY(test_id, position),
  FOREIGN KEY(test_id, turn) REFERENCES turn(test_id, position) ON DELETE CASCADE
);
INSERT INTO shot VALUES('ce782182-d1e7-44e9-9b59-6ac79046783f',0,0,1,'','counted','none','unknown','','','','none',0,'','','','',NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,150.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO shot VALUES('ce782182-d1e7-44e9-9b59-6ac79046783f',1,1,2,'','counted','none','unknown','','','','none',0,'','','','',NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,152.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO shot VALUES('ce782182-d1e7-44e9-9b59-6ac79046783f',2,2,3,'','counted','none','unknown','','','','none',0,'','','','',NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,151.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO shot VALUES('ce782182-d1e7-44e9-9b59-6ac79046783f',3,3,4,'','counted','none','unknown','','','','none',0,'','','','',NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,154.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO shot VALUES('afe8d8b9-9697-89fb-ab9c-64cb5ac05845',0,0,1,'','counted','none','unknown','','','','none',0,'','','','',NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,150.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO shot VALUES('afe8d8b9-9697-89fb-ab9c-64cb5ac05845',1,1,2,'','counted','none','unknown','','','','none',0,'','','','',NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,152.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO shot VALUES('afe8d8b9-9697-89fb-ab9c-64cb5ac05845',2,2,3,'','counted','none','unknown','','','','none',0,'','','','',NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,151.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO shot VALUES('afe8d8b9-9697-89fb-ab9c-64cb5ac05845',3,3,4,'','counted','none','unknown','','','','none',0,'','','','',NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,154.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
CREATE TABLE tally(
  test_id TEXT PRIMARY KEY REFERENCES test(id) ON DELETE CASCADE,
  turns TEXT NOT NULL
) WITHOUT ROWID;
CREATE INDEX test_by_player ON test_player(player_id);
CREATE INDEX shot_by_turn ON shot(test_id, turn, status);
CREATE TRIGGER tally_after_insert AFTER INSERT ON shot BEGIN DELETE FROM tally WHERE test_id = new.test_id; END;
CREATE TRIGGER tally_after_delete AFTER DELETE ON shot BEGIN DELETE FROM tally WHERE test_id = old.test_id; END;
CREATE TRIGGER tally_after_update AFTER UPDATE ON shot BEGIN DELETE FROM tally WHERE test_id = new.test_id; END;
COMMIT;
