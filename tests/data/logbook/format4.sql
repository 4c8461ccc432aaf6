PRAGMA application_id = 1265528692;
PRAGMA user_version = 4;
PRAGMA foreign_keys=OFF;
BEGIN TRANSACTION;
CREATE TABLE setting(key TEXT PRIMARY KEY, value TEXT NOT NULL) WITHOUT ROWID;
CREATE TABLE shot(
  test_id TEXT NOT NULL,
  position INTEGER NOT NULL,
  turn INTEGER NOT NULL,
  number TEXT NOT NULL DEFAULT '',
  status TEXT NOT NULL CHECK(status IN ('counted', 'set_aside', 'warm_up')),
  mark TEXT NOT NULL DEFAULT 'none' CHECK(mark IN ('none', 'club', 'player')),
  set_aside_when TEXT NOT NULL DEFAULT 'unknown'
    CHECK(set_aside_when IN ('unknown', 'called', 'by_rule', 'after_number', 'after_reveal')),
  reason TEXT NOT NULL DEFAULT '',
  taken_at TEXT NOT NULL DEFAULT '',
  delivery TEXT NOT NULL DEFAULT '',
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
  strike_high_mm REAL, id INTEGER NOT NULL DEFAULT 0,
  PRIMARY KEY(test_id, position),
  FOREIGN KEY(test_id, turn) REFERENCES turn(test_id, position) ON DELETE CASCADE
);
INSERT INTO "shot" VALUES('062d26b1-60af-42a0-807d-cd84390d741c',0,0,'','warm_up','none','unknown','','','',0,'','link:1','','',NULL,60.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,140.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,1);
INSERT INTO "shot" VALUES('062d26b1-60af-42a0-807d-cd84390d741c',1,0,'','counted','none','unknown','','','',0,'','link:2','','',NULL,62.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,150.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,2);
INSERT INTO "shot" VALUES('062d26b1-60af-42a0-807d-cd84390d741c',2,0,'','set_aside','none','called','thin','','',0,'','link:3','','',NULL,61.5,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,149.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,3);
INSERT INTO "shot" VALUES('062d26b1-60af-42a0-807d-cd84390d741c',3,1,'','counted','none','unknown','','','',0,'','link:4','','',NULL,62.5,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,153.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,4);
INSERT INTO "shot" VALUES('062d26b1-60af-42a0-807d-cd84390d741c',4,1,'','counted','none','unknown','','','',0,'','link:5','','',NULL,62.4,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,152.5,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,5);
INSERT INTO "shot" VALUES('00000000-0000-4000-8000-000000000001',0,0,'','counted','none','unknown','','','',0,'','','','',NULL,60.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,150.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,1);
INSERT INTO "shot" VALUES('00000000-0000-4000-8000-000000000001',1,0,'','counted','none','unknown','','','',0,'','','','',NULL,61.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,151.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,2);
INSERT INTO "shot" VALUES('00000000-0000-4000-8000-000000000001',2,1,'','counted','none','unknown','','','',0,'','','','',NULL,62.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,152.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,3);
INSERT INTO "shot" VALUES('00000000-0000-4000-8000-000000000001',3,1,'','counted','none','unknown','','','',0,'','','','',NULL,63.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,153.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,4);
INSERT INTO "shot" VALUES('00000000-0000-4000-8000-000000000002',0,0,'','counted','none','unknown','','','',0,'','','','',NULL,60.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,150.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,1);
INSERT INTO "shot" VALUES('00000000-0000-4000-8000-000000000002',1,0,'','counted','none','unknown','','','',0,'','','','',NULL,61.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,151.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,2);
INSERT INTO "shot" VALUES('00000000-0000-4000-8000-000000000002',2,1,'','counted','none','unknown','','','',0,'','','','',NULL,62.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,152.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,3);
INSERT INTO "shot" VALUES('00000000-0000-4000-8000-000000000002',3,1,'','counted','none','unknown','','','',0,'','','','',NULL,63.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,153.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,4);
INSERT INTO "shot" VALUES('00000000-0000-4000-8000-000000000003',0,0,'','counted','none','unknown','','','',0,'','','','',NULL,60.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,150.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,1);
INSERT INTO "shot" VALUES('00000000-0000-4000-8000-000000000003',1,0,'','counted','none','unknown','','','',0,'','','','',NULL,61.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,151.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,2);
INSERT INTO "shot" VALUES('00000000-0000-4000-8000-000000000003',2,1,'','counted','none','unknown','','','',0,'','','','',NULL,62.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,152.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,3);
INSERT INTO "shot" VALUES('00000000-0000-4000-8000-000000000003',3,1,'','counted','none','unknown','','','',0,'','','','',NULL,63.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,153.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,4);
INSERT INTO "shot" VALUES('00000000-0000-4000-8000-000000000004',0,0,'','counted','none','unknown','','','',0,'','','','',NULL,60.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,150.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,1);
INSERT INTO "shot" VALUES('00000000-0000-4000-8000-000000000004',1,0,'','counted','none','unknown','','','',0,'','','','',NULL,61.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,151.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,2);
INSERT INTO "shot" VALUES('00000000-0000-4000-8000-000000000004',2,1,'','counted','none','unknown','','','',0,'','','','',NULL,62.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,152.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,3);
INSERT INTO "shot" VALUES('00000000-0000-4000-8000-000000000004',3,1,'','counted','none','unknown','','','',0,'','','','',NULL,63.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,153.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,4);
INSERT INTO "shot" VALUES('00000000-0000-4000-8000-000000000005',0,0,'','counted','none','unknown','','','',0,'','','','',NULL,60.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,150.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,1);
INSERT INTO "shot" VALUES('00000000-0000-4000-8000-000000000005',1,0,'','counted','none','unknown','','','',0,'','','','',NULL,61.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,151.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,2);
INSERT INTO "shot" VALUES('00000000-0000-4000-8000-000000000005',2,1,'','counted','none','unknown','','','',0,'','','','',NULL,62.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,152.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,3);
INSERT INTO "shot" VALUES('00000000-0000-4000-8000-000000000005',3,1,'','counted','none','unknown','','','',0,'','','','',NULL,63.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,153.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,4);
CREATE TABLE sitting(
  test_id TEXT NOT NULL REFERENCES test(id) ON DELETE CASCADE,
  position INTEGER NOT NULL,
  label TEXT NOT NULL DEFAULT '',
  PRIMARY KEY(test_id, position)
) WITHOUT ROWID;
INSERT INTO "sitting" VALUES('00000000-0000-4000-8000-000000000001',0,'2026-04-02');
INSERT INTO "sitting" VALUES('00000000-0000-4000-8000-000000000002',0,'2026-07-02');
INSERT INTO "sitting" VALUES('00000000-0000-4000-8000-000000000003',0,'2026-07-03');
INSERT INTO "sitting" VALUES('00000000-0000-4000-8000-000000000004',0,'2026-07-04');
INSERT INTO "sitting" VALUES('00000000-0000-4000-8000-000000000005',0,'2026-07-05');
INSERT INTO "sitting" VALUES('062d26b1-60af-42a0-807d-cd84390d741c',0,'2026-05-02');
CREATE TABLE tally(
  test_id TEXT PRIMARY KEY REFERENCES test(id) ON DELETE CASCADE,
  turns TEXT NOT NULL
) WITHOUT ROWID;
CREATE TABLE test(
  id TEXT PRIMARY KEY,
  title TEXT NOT NULL,
  question TEXT NOT NULL DEFAULT '',
  player TEXT NOT NULL DEFAULT '',
  created_at TEXT NOT NULL DEFAULT '',
  head TEXT NOT NULL
) WITHOUT ROWID;
INSERT INTO "test" VALUES('00000000-0000-4000-8000-000000000001','Spring','','Marit Aasgaard','2026-04-02T09:00:00','{"format":"knotcount.test","version":1,"title":"Spring","question":"","player":"Marit Aasgaard","created_at":"2026-04-02T09:00:00","stage":"test","profile":{"name":"Marit Aasgaard","left_handed":true,"shape":"fade","tempo":"smooth"},"builds":[{"build":"Birch","note":""},{"build":"Flint","note":""}],"extra_columns":[],"card":{"kind":"own","factor":"","comparison":"against_baseline","baseline":"","primary":[],"want":{},"margins":{},"expectations":{},"sd_ratio_margin":1.25,"area_ratio_margin":1.5,"alpha":0.05,"looks":"none","planned_rounds":0,"held":[],"blinding":"open","alone":false,"sees":{"shots":"everyone","averages":"nobody","comparisons":"nobody"},"trend_column":"","factor_column":"","covariates":[],"set_aside_rule":"called","replace_set_aside":true,"good_shots":0,"shapes":[],"targets":[]},"plan":{"schedule":"rotated","rounds":5,"turn_length":3,"seed":"1","change_seconds":90.0,"shot_seconds":30.0,"warm_up":8,"rest_every":25,"rest_seconds":180.0,"change_times":[],"turns":[]},"seal":{},"amendments":[],"frozen":{"at":"","hash":""},"guesses":[]}');
INSERT INTO "test" VALUES('00000000-0000-4000-8000-000000000002','Summer','','Marit Aasgaard','2026-07-02T09:00:00','{"format":"knotcount.test","version":1,"title":"Summer","question":"","player":"Marit Aasgaard","created_at":"2026-07-02T09:00:00","stage":"test","profile":{"name":"Marit Aasgaard","left_handed":true,"club_speed_ms":41.5,"shape":"draw"},"builds":[{"build":"Birch","note":""},{"build":"Flint","note":""}],"extra_columns":[],"card":{"kind":"own","factor":"","comparison":"against_baseline","baseline":"","primary":[],"want":{},"margins":{},"expectations":{},"sd_ratio_margin":1.25,"area_ratio_margin":1.5,"alpha":0.05,"looks":"none","planned_rounds":0,"held":[],"blinding":"open","alone":false,"sees":{"shots":"everyone","averages":"nobody","comparisons":"nobody"},"trend_column":"","factor_column":"","covariates":[],"set_aside_rule":"called","replace_set_aside":true,"good_shots":0,"shapes":[],"targets":[]},"plan":{"schedule":"rotated","rounds":5,"turn_length":3,"seed":"1","change_seconds":90.0,"shot_seconds":30.0,"warm_up":8,"rest_every":25,"rest_seconds":180.0,"change_times":[],"turns":[]},"seal":{},"amendments":[],"frozen":{"at":"","hash":""},"guesses":[]}');
INSERT INTO "test" VALUES('00000000-0000-4000-8000-000000000003','Her namesake','','Marit Aasgaard','2026-07-03T09:00:00','{"format":"knotcount.test","version":1,"title":"Her namesake","question":"","player":"Marit Aasgaard","created_at":"2026-07-03T09:00:00","stage":"test","profile":{"name":"Marit Aasgaard"},"builds":[{"build":"Birch","note":""},{"build":"Flint","note":""}],"extra_columns":[],"card":{"kind":"own","factor":"","comparison":"against_baseline","baseline":"","primary":[],"want":{},"margins":{},"expectations":{},"sd_ratio_margin":1.25,"area_ratio_margin":1.5,"alpha":0.05,"looks":"none","planned_rounds":0,"held":[],"blinding":"open","alone":false,"sees":{"shots":"everyone","averages":"nobody","comparisons":"nobody"},"trend_column":"","factor_column":"","covariates":[],"set_aside_rule":"called","replace_set_aside":true,"good_shots":0,"shapes":[],"targets":[]},"plan":{"schedule":"rotated","rounds":5,"turn_length":3,"seed":"1","change_seconds":90.0,"shot_seconds":30.0,"warm_up":8,"rest_every":25,"rest_seconds":180.0,"change_times":[],"turns":[]},"seal":{},"amendments":[],"frozen":{"at":"","hash":""},"guesses":[]}');
INSERT INTO "test" VALUES('00000000-0000-4000-8000-000000000004','Two of them','','Runa Veld','2026-07-04T09:00:00','{"format":"knotcount.test","version":1,"title":"Two of them","question":"","player":"Runa Veld","created_at":"2026-07-04T09:00:00","stage":"test","profile":{"name":"Runa Veld"},"builds":[{"build":"Birch","note":""},{"build":"Flint","note":""}],"extra_columns":[],"card":{"kind":"own","factor":"","comparison":"against_baseline","baseline":"","primary":[],"want":{},"margins":{},"expectations":{},"sd_ratio_margin":1.25,"area_ratio_margin":1.5,"alpha":0.05,"looks":"none","planned_rounds":0,"held":[],"blinding":"open","alone":false,"sees":{"shots":"everyone","averages":"nobody","comparisons":"nobody"},"trend_column":"","factor_column":"","covariates":[],"set_aside_rule":"called","replace_set_aside":true,"good_shots":0,"shapes":[],"targets":[]},"plan":{"schedule":"rotated","rounds":5,"turn_length":3,"seed":"1","change_seconds":90.0,"shot_seconds":30.0,"warm_up":8,"rest_every":25,"rest_seconds":180.0,"change_times":[],"turns":[]},"seal":{},"amendments":[],"frozen":{"at":"","hash":""},"guesses":[]}');
INSERT INTO "test" VALUES('00000000-0000-4000-8000-000000000005','Nobody said','','','2026-07-05T09:00:00','{"format":"knotcount.test","version":1,"title":"Nobody said","question":"","player":"","created_at":"2026-07-05T09:00:00","stage":"test","profile":{},"builds":[{"build":"Birch","note":""},{"build":"Flint","note":""}],"extra_columns":[],"card":{"kind":"own","factor":"","comparison":"against_baseline","baseline":"","primary":[],"want":{},"margins":{},"expectations":{},"sd_ratio_margin":1.25,"area_ratio_margin":1.5,"alpha":0.05,"looks":"none","planned_rounds":0,"held":[],"blinding":"open","alone":false,"sees":{"shots":"everyone","averages":"nobody","comparisons":"nobody"},"trend_column":"","factor_column":"","covariates":[],"set_aside_rule":"called","replace_set_aside":true,"good_shots":0,"shapes":[],"targets":[]},"plan":{"schedule":"rotated","rounds":5,"turn_length":3,"seed":"1","change_seconds":90.0,"shot_seconds":30.0,"warm_up":8,"rest_every":25,"rest_seconds":180.0,"change_times":[],"turns":[]},"seal":{},"amendments":[],"frozen":{"at":"","hash":""},"guesses":[]}');
INSERT INTO "test" VALUES('062d26b1-60af-42a0-807d-cd84390d741c','Format four','','Runa Veld','','{"format":"knotcount.test","version":1,"title":"Format four","question":"","player":"Runa Veld","created_at":"","stage":"test","profile":{},"builds":[{"build":"Birch","note":""},{"build":"Flint","note":""}],"extra_columns":[],"card":{"kind":"own","factor":"","comparison":"against_baseline","baseline":"","primary":[],"want":{},"margins":{},"expectations":{},"sd_ratio_margin":1.25,"area_ratio_margin":1.5,"alpha":0.05,"looks":"none","planned_rounds":0,"held":[],"blinding":"open","alone":false,"sees":{"shots":"everyone","averages":"nobody","comparisons":"nobody"},"trend_column":"","factor_column":"","covariates":[],"set_aside_rule":"called","replace_set_aside":true,"good_shots":0,"shapes":[],"targets":[]},"plan":{"schedule":"rotated","rounds":5,"turn_length":3,"seed":"1","change_seconds":90.0,"shot_seconds":30.0,"warm_up":8,"rest_every":25,"rest_seconds":180.0,"change_times":[],"turns":[]},"seal":{},"guesses":[{"build":"Birch","said":"Flint","turn":""}],"amendments":[],"frozen":{"at":"","hash":""},"feels":[{"turn":"1","build":"Birch","liveliness":7,"words":"dead"}],"sittings":[{"label":"2026-05-02","started_at":"2026-05-02T09:00:00"}],"events":[{"kind":"rest","at":"2026-05-02T09:10:00","after_shots":3,"text":""}],"progress":{"warmed_up":true,"confirmed":2,"named":0,"handed_over_at":"2026-05-02T09:12:00","in_hand":"Birch"}}');
CREATE TABLE test_build(
  test_id TEXT NOT NULL REFERENCES test(id) ON DELETE CASCADE,
  position INTEGER NOT NULL,
  name TEXT NOT NULL,
  PRIMARY KEY(test_id, position)
) WITHOUT ROWID;
INSERT INTO "test_build" VALUES('00000000-0000-4000-8000-000000000001',0,'Birch');
INSERT INTO "test_build" VALUES('00000000-0000-4000-8000-000000000001',1,'Flint');
INSERT INTO "test_build" VALUES('00000000-0000-4000-8000-000000000002',0,'Birch');
INSERT INTO "test_build" VALUES('00000000-0000-4000-8000-000000000002',1,'Flint');
INSERT INTO "test_build" VALUES('00000000-0000-4000-8000-000000000003',0,'Birch');
INSERT INTO "test_build" VALUES('00000000-0000-4000-8000-000000000003',1,'Flint');
INSERT INTO "test_build" VALUES('00000000-0000-4000-8000-000000000004',0,'Birch');
INSERT INTO "test_build" VALUES('00000000-0000-4000-8000-000000000004',1,'Flint');
INSERT INTO "test_build" VALUES('00000000-0000-4000-8000-000000000005',0,'Birch');
INSERT INTO "test_build" VALUES('00000000-0000-4000-8000-000000000005',1,'Flint');
INSERT INTO "test_build" VALUES('062d26b1-60af-42a0-807d-cd84390d741c',0,'Birch');
INSERT INTO "test_build" VALUES('062d26b1-60af-42a0-807d-cd84390d741c',1,'Flint');
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
INSERT INTO "turn" VALUES('00000000-0000-4000-8000-000000000001',0,0,0,'1','1','',0);
INSERT INTO "turn" VALUES('00000000-0000-4000-8000-000000000001',1,0,1,'1','2','',0);
INSERT INTO "turn" VALUES('00000000-0000-4000-8000-000000000002',0,0,0,'1','1','',0);
INSERT INTO "turn" VALUES('00000000-0000-4000-8000-000000000002',1,0,1,'1','2','',0);
INSERT INTO "turn" VALUES('00000000-0000-4000-8000-000000000003',0,0,0,'1','1','',0);
INSERT INTO "turn" VALUES('00000000-0000-4000-8000-000000000003',1,0,1,'1','2','',0);
INSERT INTO "turn" VALUES('00000000-0000-4000-8000-000000000004',0,0,0,'1','1','',0);
INSERT INTO "turn" VALUES('00000000-0000-4000-8000-000000000004',1,0,1,'1','2','Odd Farstad',0);
INSERT INTO "turn" VALUES('00000000-0000-4000-8000-000000000005',0,0,0,'1','1','',0);
INSERT INTO "turn" VALUES('00000000-0000-4000-8000-000000000005',1,0,1,'1','2','',0);
INSERT INTO "turn" VALUES('062d26b1-60af-42a0-807d-cd84390d741c',0,0,0,'1','1','',0);
INSERT INTO "turn" VALUES('062d26b1-60af-42a0-807d-cd84390d741c',1,0,1,'1','2','',0);
CREATE INDEX shot_by_turn ON shot(test_id, turn, status);
CREATE TRIGGER tally_after_insert AFTER INSERT ON shot BEGIN DELETE FROM tally WHERE test_id = new.test_id; END;
CREATE TRIGGER tally_after_delete AFTER DELETE ON shot BEGIN DELETE FROM tally WHERE test_id = old.test_id; END;
CREATE TRIGGER tally_after_update AFTER UPDATE ON shot BEGIN DELETE FROM tally WHERE test_id = new.test_id; END;
COMMIT;
