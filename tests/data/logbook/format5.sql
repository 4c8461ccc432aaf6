PRAGMA application_id = 1265528692;
PRAGMA user_version = 5;
PRAGMA foreign_keys=OFF;
BEGIN TRANSACTION;
CREATE TABLE player(
  id TEXT PRIMARY KEY,
  name TEXT NOT NULL,
  left_handed INTEGER NOT NULL DEFAULT 0,
  about TEXT NOT NULL
) WITHOUT ROWID;
INSERT INTO "player" VALUES('11111111-2222-4333-8444-555555555555','Runa Veld',0,'{"id":"11111111-2222-4333-8444-555555555555","name":"Runa Veld"}');
CREATE TABLE setting(key TEXT PRIMARY KEY, value TEXT NOT NULL) WITHOUT ROWID;
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
INSERT INTO "shot" VALUES('f2a13c81-63f3-4cca-b67e-a73cbc79c83f',0,0,1,'1','counted','none','unknown','','','','none',0,'','','','',NULL,49.9,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,149.4,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "shot" VALUES('f2a13c81-63f3-4cca-b67e-a73cbc79c83f',1,0,2,'2','counted','none','unknown','','','','none',0,'','','','',NULL,50.1,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,151.8,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "shot" VALUES('f2a13c81-63f3-4cca-b67e-a73cbc79c83f',2,0,3,'3','counted','none','unknown','','','','none',0,'','','','',NULL,50.3,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,147.6,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "shot" VALUES('f2a13c81-63f3-4cca-b67e-a73cbc79c83f',3,1,4,'4','counted','none','unknown','','','','none',0,'','','','',NULL,50.8,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,153.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "shot" VALUES('f2a13c81-63f3-4cca-b67e-a73cbc79c83f',4,1,5,'5','counted','none','unknown','','','','none',0,'','','','',NULL,51.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,155.4,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "shot" VALUES('f2a13c81-63f3-4cca-b67e-a73cbc79c83f',5,1,6,'6','counted','none','unknown','','','','none',0,'','','','',NULL,51.2,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,151.2,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "shot" VALUES('f2a13c81-63f3-4cca-b67e-a73cbc79c83f',6,2,7,'7','counted','none','unknown','','','','none',0,'','','','',NULL,49.37,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,149.6,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "shot" VALUES('f2a13c81-63f3-4cca-b67e-a73cbc79c83f',7,2,8,'8','counted','none','unknown','','','','none',0,'','','','',NULL,49.57,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,152.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "shot" VALUES('f2a13c81-63f3-4cca-b67e-a73cbc79c83f',8,2,9,'9','counted','none','unknown','','','','none',0,'','','','',NULL,49.77,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,147.8,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "shot" VALUES('f2a13c81-63f3-4cca-b67e-a73cbc79c83f',9,3,10,'10','counted','none','unknown','','','','none',0,'','','','',NULL,51.3,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,154.2,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "shot" VALUES('f2a13c81-63f3-4cca-b67e-a73cbc79c83f',10,3,11,'11','counted','none','unknown','','','','none',0,'','','','',NULL,50.8,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,150.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "shot" VALUES('f2a13c81-63f3-4cca-b67e-a73cbc79c83f',11,3,12,'12','counted','none','unknown','','','','none',0,'','','','',NULL,51.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,152.4,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "shot" VALUES('f2a13c81-63f3-4cca-b67e-a73cbc79c83f',12,4,13,'13','counted','none','unknown','','','','none',0,'','','','',NULL,50.2,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,151.8,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "shot" VALUES('f2a13c81-63f3-4cca-b67e-a73cbc79c83f',13,4,14,'14','counted','none','unknown','','','','none',0,'','','','',NULL,49.7,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,147.6,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "shot" VALUES('f2a13c81-63f3-4cca-b67e-a73cbc79c83f',14,4,15,'15','counted','none','unknown','','','','none',0,'','','','',NULL,49.9,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,150.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "shot" VALUES('f2a13c81-63f3-4cca-b67e-a73cbc79c83f',15,5,16,'16','counted','none','unknown','','','','none',0,'','','','',NULL,50.1,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,152.4,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "shot" VALUES('f2a13c81-63f3-4cca-b67e-a73cbc79c83f',16,5,17,'17','counted','none','unknown','','','','none',0,'','','','',NULL,50.3,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,148.2,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "shot" VALUES('f2a13c81-63f3-4cca-b67e-a73cbc79c83f',17,5,18,'18','counted','none','unknown','','','','none',0,'','','','',NULL,49.8,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,150.6,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "shot" VALUES('f2a13c81-63f3-4cca-b67e-a73cbc79c83f',18,6,19,'19','counted','club','unknown','','','','none',0,'','','','',NULL,51.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,156.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "shot" VALUES('f2a13c81-63f3-4cca-b67e-a73cbc79c83f',19,6,20,'20','counted','none','unknown','','','','none',0,'','','','',NULL,51.2,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,151.8,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "shot" VALUES('f2a13c81-63f3-4cca-b67e-a73cbc79c83f',20,6,21,'21','counted','none','unknown','','','','none',0,'','','','',NULL,50.7,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,154.2,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "shot" VALUES('f2a13c81-63f3-4cca-b67e-a73cbc79c83f',21,7,22,'22','counted','none','unknown','','','','none',0,'','','','',NULL,50.9,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,150.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "shot" VALUES('f2a13c81-63f3-4cca-b67e-a73cbc79c83f',22,7,23,'23','counted','none','unknown','','','','none',0,'','','','',NULL,51.1,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,152.4,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "shot" VALUES('f2a13c81-63f3-4cca-b67e-a73cbc79c83f',23,7,24,'24','counted','none','unknown','','','','none',0,'','','','',NULL,51.3,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,154.8,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "shot" VALUES('f2a13c81-63f3-4cca-b67e-a73cbc79c83f',24,8,25,'25','counted','none','unknown','','','','none',0,'','','','',NULL,49.8,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,147.6,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "shot" VALUES('f2a13c81-63f3-4cca-b67e-a73cbc79c83f',25,8,26,'26','counted','none','unknown','','','','none',0,'','','','',NULL,50.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,150.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "shot" VALUES('f2a13c81-63f3-4cca-b67e-a73cbc79c83f',26,8,27,'27','counted','none','unknown','','','','none',0,'','','','',NULL,50.2,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,152.4,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "shot" VALUES('6b352611-7db8-4f79-a1ba-07597cdd17ba',0,0,1,'1','counted','none','unknown','','','','none',0,'','','','',NULL,49.9,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,149.4,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "shot" VALUES('6b352611-7db8-4f79-a1ba-07597cdd17ba',1,0,2,'2','counted','none','unknown','','','','none',0,'','','','',NULL,50.1,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,151.8,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "shot" VALUES('6b352611-7db8-4f79-a1ba-07597cdd17ba',2,1,3,'3','counted','none','unknown','','','','none',0,'','','','',NULL,50.97,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,149.6,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "shot" VALUES('6b352611-7db8-4f79-a1ba-07597cdd17ba',3,1,4,'4','counted','none','unknown','','','','none',0,'','','','',NULL,50.47,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,152.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "shot" VALUES('6b352611-7db8-4f79-a1ba-07597cdd17ba',4,2,5,'5','counted','none','unknown','','','','none',0,'','','','',NULL,48.33,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,147.4,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "shot" VALUES('6b352611-7db8-4f79-a1ba-07597cdd17ba',5,2,6,'6','counted','none','unknown','','','','none',0,'','','','',NULL,48.53,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,143.2,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "shot" VALUES('6b352611-7db8-4f79-a1ba-07597cdd17ba',6,3,7,'7','counted','none','unknown','','','','none',0,'','','','',NULL,47.7,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,144.6,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "shot" VALUES('6b352611-7db8-4f79-a1ba-07597cdd17ba',7,3,8,'8','counted','none','unknown','','','','none',0,'','','','',NULL,47.9,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,147.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "shot" VALUES('6b352611-7db8-4f79-a1ba-07597cdd17ba',8,4,9,'9','counted','none','unknown','','','','none',0,'','','','',NULL,50.77,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,150.8,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "shot" VALUES('6b352611-7db8-4f79-a1ba-07597cdd17ba',9,4,10,'10','counted','none','unknown','','','','none',0,'','','','',NULL,50.97,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,153.2,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "shot" VALUES('6b352611-7db8-4f79-a1ba-07597cdd17ba',10,5,11,'11','counted','none','unknown','','','','none',0,'','','','',NULL,47.8,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,141.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "shot" VALUES('6b352611-7db8-4f79-a1ba-07597cdd17ba',11,5,12,'12','counted','none','unknown','','','','none',0,'','','','',NULL,48.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,143.4,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "shot" VALUES('6b352611-7db8-4f79-a1ba-07597cdd17ba',12,6,13,'13','counted','none','unknown','','','','none',0,'','','','',NULL,50.2,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,151.8,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "shot" VALUES('6b352611-7db8-4f79-a1ba-07597cdd17ba',13,6,14,'14','counted','none','unknown','','','','none',0,'','','','',NULL,49.7,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,147.6,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "shot" VALUES('6b352611-7db8-4f79-a1ba-07597cdd17ba',14,7,15,'15','counted','none','unknown','','','','none',0,'','','','',NULL,48.23,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,145.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "shot" VALUES('6b352611-7db8-4f79-a1ba-07597cdd17ba',15,7,16,'16','counted','none','unknown','','','','none',0,'','','','',NULL,48.43,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,147.4,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "shot" VALUES('6b352611-7db8-4f79-a1ba-07597cdd17ba',16,8,17,'17','counted','none','unknown','','','','none',0,'','','','',NULL,48.63,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,143.2,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "shot" VALUES('6b352611-7db8-4f79-a1ba-07597cdd17ba',17,8,18,'18','counted','none','unknown','','','','none',0,'','','','',NULL,48.13,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,145.6,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "shot" VALUES('6b352611-7db8-4f79-a1ba-07597cdd17ba',18,9,19,'19','counted','none','unknown','','','','none',0,'','','','',NULL,50.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,153.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "shot" VALUES('6b352611-7db8-4f79-a1ba-07597cdd17ba',19,9,20,'20','counted','none','unknown','','','','none',0,'','','','',NULL,50.2,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,148.8,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "shot" VALUES('6b352611-7db8-4f79-a1ba-07597cdd17ba',20,10,21,'21','counted','none','unknown','','','','none',0,'','','','',NULL,47.7,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,145.2,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "shot" VALUES('6b352611-7db8-4f79-a1ba-07597cdd17ba',21,10,22,'22','counted','none','unknown','','','','none',0,'','','','',NULL,47.9,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,141.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "shot" VALUES('6b352611-7db8-4f79-a1ba-07597cdd17ba',22,11,23,'23','counted','none','unknown','','','','none',0,'','','','',NULL,50.77,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,151.4,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "shot" VALUES('6b352611-7db8-4f79-a1ba-07597cdd17ba',23,11,24,'24','counted','none','unknown','','','','none',0,'','','','',NULL,50.97,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,153.8,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "shot" VALUES('6b352611-7db8-4f79-a1ba-07597cdd17ba',24,12,25,'25','counted','none','unknown','','','','none',0,'','','','',NULL,50.47,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,149.6,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "shot" VALUES('6b352611-7db8-4f79-a1ba-07597cdd17ba',25,12,26,'26','counted','none','unknown','','','','none',0,'','','','',NULL,50.67,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,152.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "shot" VALUES('6b352611-7db8-4f79-a1ba-07597cdd17ba',26,13,27,'27','counted','none','unknown','','','','none',0,'','','','',NULL,50.2,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,152.4,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "shot" VALUES('6b352611-7db8-4f79-a1ba-07597cdd17ba',27,13,28,'28','counted','none','unknown','','','','none',0,'','','','',NULL,49.7,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,148.2,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "shot" VALUES('6b352611-7db8-4f79-a1ba-07597cdd17ba',28,14,29,'29','counted','none','unknown','','','','none',0,'','','','',NULL,49.9,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,150.6,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "shot" VALUES('6b352611-7db8-4f79-a1ba-07597cdd17ba',29,14,30,'30','counted','none','unknown','','','','none',0,'','','','',NULL,50.1,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,153.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "shot" VALUES('6b352611-7db8-4f79-a1ba-07597cdd17ba',30,15,31,'31','counted','none','unknown','','','','none',0,'','','','',NULL,50.97,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,150.8,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "shot" VALUES('6b352611-7db8-4f79-a1ba-07597cdd17ba',31,15,32,'32','counted','none','unknown','','','','none',0,'','','','',NULL,50.47,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,153.2,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "shot" VALUES('bace0787-0f51-47df-a7e2-c310c71ed7f1',0,0,1,'1','counted','none','unknown','','','','none',0,'','','','',NULL,49.9,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,149.4,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "shot" VALUES('bace0787-0f51-47df-a7e2-c310c71ed7f1',1,0,2,'2','counted','none','unknown','','','','none',0,'','','','',NULL,50.1,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,151.8,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "shot" VALUES('bace0787-0f51-47df-a7e2-c310c71ed7f1',2,0,3,'3','counted','none','unknown','','','','none',0,'','','','',NULL,50.3,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,147.6,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "shot" VALUES('bace0787-0f51-47df-a7e2-c310c71ed7f1',3,0,4,'4','counted','none','unknown','','','','none',0,'','','','',NULL,49.8,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,150.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "shot" VALUES('bace0787-0f51-47df-a7e2-c310c71ed7f1',4,1,5,'5','counted','none','unknown','','','','none',0,'','','','',NULL,50.67,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,154.4,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "shot" VALUES('bace0787-0f51-47df-a7e2-c310c71ed7f1',5,1,6,'6','counted','none','unknown','','','','none',0,'','','','',NULL,50.87,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,150.2,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "shot" VALUES('bace0787-0f51-47df-a7e2-c310c71ed7f1',6,1,7,'7','counted','none','unknown','','','','none',0,'','','','',NULL,50.37,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,152.6,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "shot" VALUES('bace0787-0f51-47df-a7e2-c310c71ed7f1',7,1,8,'8','counted','none','unknown','','','','none',0,'','','','',NULL,50.57,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,155.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "shot" VALUES('78566441-7c45-43ec-be4e-a8bd3725af70',0,0,1,'1','counted','none','unknown','','','','none',0,'','','','',NULL,50.23,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,150.4,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "shot" VALUES('78566441-7c45-43ec-be4e-a8bd3725af70',1,0,2,'2','counted','none','unknown','','','','none',0,'','','','',NULL,50.43,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,152.8,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "shot" VALUES('78566441-7c45-43ec-be4e-a8bd3725af70',2,0,3,'3','counted','none','unknown','','','','none',0,'','','','',NULL,50.63,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,148.6,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "shot" VALUES('78566441-7c45-43ec-be4e-a8bd3725af70',3,1,4,'4','counted','none','unknown','','','','none',0,'','','','',NULL,50.8,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,153.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "shot" VALUES('78566441-7c45-43ec-be4e-a8bd3725af70',4,1,5,'5','counted','none','unknown','','','','none',0,'','','','',NULL,51.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,155.4,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "shot" VALUES('78566441-7c45-43ec-be4e-a8bd3725af70',5,1,6,'6','counted','none','unknown','','','','none',0,'','','','',NULL,51.2,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,151.2,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "shot" VALUES('78566441-7c45-43ec-be4e-a8bd3725af70',6,2,7,'7','counted','none','unknown','','','','none',0,'','','','',NULL,50.7,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,153.6,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "shot" VALUES('78566441-7c45-43ec-be4e-a8bd3725af70',7,2,8,'8','counted','none','unknown','','','','none',0,'','','','',NULL,50.9,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,156.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "shot" VALUES('78566441-7c45-43ec-be4e-a8bd3725af70',8,2,9,'9','counted','none','unknown','','','','none',0,'','','','',NULL,51.1,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,151.8,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "shot" VALUES('78566441-7c45-43ec-be4e-a8bd3725af70',9,3,10,'10','counted','none','unknown','','','','none',0,'','','','',NULL,50.63,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,152.2,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "shot" VALUES('78566441-7c45-43ec-be4e-a8bd3725af70',10,3,11,'11','counted','none','unknown','','','','none',0,'','','','',NULL,50.13,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,148.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "shot" VALUES('78566441-7c45-43ec-be4e-a8bd3725af70',11,3,12,'12','counted','none','unknown','','','','none',0,'','','','',NULL,50.33,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,150.4,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "shot" VALUES('78566441-7c45-43ec-be4e-a8bd3725af70',12,4,13,'13','counted','none','unknown','','','','none',0,'','','','',NULL,50.53,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,152.8,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "shot" VALUES('78566441-7c45-43ec-be4e-a8bd3725af70',13,4,14,'14','counted','none','unknown','','','','none',0,'','','','',NULL,50.03,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,148.6,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "shot" VALUES('78566441-7c45-43ec-be4e-a8bd3725af70',14,4,15,'15','counted','none','unknown','','','','none',0,'','','','',NULL,50.23,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,151.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "shot" VALUES('78566441-7c45-43ec-be4e-a8bd3725af70',15,5,16,'16','counted','none','unknown','','','','none',0,'','','','',NULL,51.1,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,155.4,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "shot" VALUES('78566441-7c45-43ec-be4e-a8bd3725af70',16,5,17,'17','counted','none','unknown','','','','none',0,'','','','',NULL,51.3,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,151.2,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "shot" VALUES('78566441-7c45-43ec-be4e-a8bd3725af70',17,5,18,'18','counted','none','unknown','','','','none',0,'','','','',NULL,50.8,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,153.6,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "shot" VALUES('78566441-7c45-43ec-be4e-a8bd3725af70',18,6,19,'19','counted','none','unknown','','','','none',0,'','','','',NULL,51.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,156.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "shot" VALUES('78566441-7c45-43ec-be4e-a8bd3725af70',19,6,20,'20','counted','none','unknown','','','','none',0,'','','','',NULL,51.2,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,151.8,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "shot" VALUES('78566441-7c45-43ec-be4e-a8bd3725af70',20,6,21,'21','counted','none','unknown','','','','none',0,'','','','',NULL,50.7,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,154.2,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "shot" VALUES('78566441-7c45-43ec-be4e-a8bd3725af70',21,7,22,'22','counted','none','unknown','','','','none',0,'','','','',NULL,50.23,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,148.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "shot" VALUES('78566441-7c45-43ec-be4e-a8bd3725af70',22,7,23,'23','counted','none','unknown','','','','none',0,'','','','',NULL,50.43,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,150.4,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
INSERT INTO "shot" VALUES('78566441-7c45-43ec-be4e-a8bd3725af70',23,7,24,'24','counted','none','unknown','','','','none',0,'','','','',NULL,50.63,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,152.8,NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL);
CREATE TABLE sitting(
  test_id TEXT NOT NULL REFERENCES test(id) ON DELETE CASCADE,
  position INTEGER NOT NULL,
  label TEXT NOT NULL DEFAULT '',
  PRIMARY KEY(test_id, position)
) WITHOUT ROWID;
INSERT INTO "sitting" VALUES('6b352611-7db8-4f79-a1ba-07597cdd17ba',0,'2026-05-03');
INSERT INTO "sitting" VALUES('78566441-7c45-43ec-be4e-a8bd3725af70',0,'2026-06-01');
INSERT INTO "sitting" VALUES('bace0787-0f51-47df-a7e2-c310c71ed7f1',0,'2026-05-04');
INSERT INTO "sitting" VALUES('f2a13c81-63f3-4cca-b67e-a73cbc79c83f',0,'2026-05-02');
CREATE TABLE tally(
  test_id TEXT PRIMARY KEY REFERENCES test(id) ON DELETE CASCADE,
  turns TEXT NOT NULL
) WITHOUT ROWID;
CREATE TABLE test(
  id TEXT PRIMARY KEY,
  title TEXT NOT NULL,
  question TEXT NOT NULL DEFAULT '',
  created_at TEXT NOT NULL DEFAULT '',
  head TEXT NOT NULL
) WITHOUT ROWID;
INSERT INTO "test" VALUES('6b352611-7db8-4f79-a1ba-07597cdd17ba','Four heads, two left','Which of them?','2026-05-03T09:00:00','{"format":"knotcount.test","version":1,"title":"Four heads, two left","question":"Which of them?","player":"Runa Veld","created_at":"2026-05-03T09:00:00","stage":"test","players":[{"id":"11111111-2222-4333-8444-555555555555","name":"Runa Veld"}],"builds":[{"build":"Tarn 7","note":""},{"build":"Mere 7","note":""},{"build":"Fell 7","note":"","struck_off":"after lap 3"},{"build":"Beck 7","note":"","struck_off":"after lap 3"}],"extra_columns":[],"card":{"kind":"own","factor":"","comparison":"which_of_these","baseline":"","primary":["carry_m"],"want":{"carry_m":{"kind":"more"}},"margins":{},"expectations":{},"sd_ratio_margin":1.25,"area_ratio_margin":1.5,"alpha":0.05,"looks":"none","planned_rounds":5,"held":[],"blinding":"open","alone":false,"sees":{"shots":"everyone","averages":"nobody","comparisons":"nobody"},"trend_column":"","factor_column":"","covariates":[],"set_aside_rule":"called","replace_set_aside":true,"good_shots":0,"shapes":[],"targets":[]},"plan":{"schedule":"striking_off","rounds":5,"turn_length":2,"seed":"1","change_seconds":90.0,"shot_seconds":30.0,"warm_up":8,"rest_every":25,"rest_seconds":180.0,"change_times":[],"turns":[{"build":0,"round":1,"shots":2},{"build":1,"round":1,"shots":2},{"build":2,"round":1,"shots":2},{"build":3,"round":1,"shots":2},{"build":1,"round":2,"shots":2},{"build":3,"round":2,"shots":2},{"build":0,"round":2,"shots":2},{"build":2,"round":2,"shots":2},{"build":2,"round":3,"shots":2},{"build":0,"round":3,"shots":2},{"build":3,"round":3,"shots":2},{"build":1,"round":3,"shots":2},{"build":1,"round":4,"shots":2},{"build":0,"round":4,"shots":2},{"build":0,"round":5,"shots":2},{"build":1,"round":5,"shots":2}]},"seal":{},"guesses":[],"amendments":[],"frozen":{"at":"2026-05-03T09:00:00","hash":"0000000000000000000000000000000000000000000000000000000000000000"}}');
INSERT INTO "test" VALUES('78566441-7c45-43ec-be4e-a8bd3725af70','One broke, another day','Which of them?','2026-06-01T09:00:00','{"format":"knotcount.test","version":1,"title":"One broke, another day","question":"Which of them?","player":"Runa Veld","created_at":"2026-06-01T09:00:00","stage":"test","repeats":"f2a13c81-63f3-4cca-b67e-a73cbc79c83f","players":[{"id":"11111111-2222-4333-8444-555555555555","name":"Runa Veld"}],"builds":[{"build":"Alder 62","note":""},{"build":"Reed 53","note":""}],"extra_columns":[],"card":{"kind":"own","factor":"","comparison":"against_baseline","baseline":"Alder 62","primary":["carry_m"],"want":{"carry_m":{"kind":"more"}},"margins":{},"expectations":{},"sd_ratio_margin":1.25,"area_ratio_margin":1.5,"alpha":0.05,"looks":"none","planned_rounds":4,"held":[],"blinding":"open","alone":false,"sees":{"shots":"everyone","averages":"nobody","comparisons":"nobody"},"trend_column":"","factor_column":"","covariates":[],"set_aside_rule":"called","replace_set_aside":true,"good_shots":0,"shapes":[],"targets":[]},"plan":{"schedule":"rotated","rounds":4,"turn_length":3,"seed":"1","change_seconds":90.0,"shot_seconds":30.0,"warm_up":8,"rest_every":25,"rest_seconds":180.0,"change_times":[],"turns":[{"build":0,"round":1,"shots":3},{"build":1,"round":1,"shots":3},{"build":1,"round":2,"shots":3},{"build":0,"round":2,"shots":3},{"build":0,"round":3,"shots":3},{"build":1,"round":3,"shots":3},{"build":1,"round":4,"shots":3},{"build":0,"round":4,"shots":3}]},"seal":{},"guesses":[],"amendments":[],"frozen":{"at":"2026-05-02T09:00:00","hash":"0000000000000000000000000000000000000000000000000000000000000000"},"sittings":[{"label":"2026-06-01","started_at":"2026-06-01T09:00:00"}],"progress":{"warmed_up":true,"confirmed":12,"named":0,"handed_over_at":"2026-05-02T09:50:00","in_hand":"Reed 53"}}');
INSERT INTO "test" VALUES('bace0787-0f51-47df-a7e2-c310c71ed7f1','A few each','Which of them?','2026-05-04T09:00:00','{"format":"knotcount.test","version":1,"title":"A few each","question":"Which of them?","player":"Runa Veld","created_at":"2026-05-04T09:00:00","stage":"screening","players":[{"id":"11111111-2222-4333-8444-555555555555","name":"Runa Veld"}],"builds":[{"build":"Tarn 7","note":""},{"build":"Mere 7","note":"","struck_off":"too low"}],"extra_columns":[],"card":{"kind":"own","factor":"","comparison":"against_baseline","baseline":"","primary":["carry_m"],"want":{"carry_m":{"kind":"more"}},"margins":{},"expectations":{},"sd_ratio_margin":1.25,"area_ratio_margin":1.5,"alpha":0.05,"looks":"none","planned_rounds":0,"held":[],"blinding":"open","alone":false,"sees":{"shots":"everyone","averages":"nobody","comparisons":"nobody"},"trend_column":"","factor_column":"","covariates":[],"set_aside_rule":"called","replace_set_aside":true,"good_shots":0,"shapes":[],"targets":[]},"plan":{"schedule":"rotated","rounds":5,"turn_length":3,"seed":"1","change_seconds":90.0,"shot_seconds":30.0,"warm_up":8,"rest_every":25,"rest_seconds":180.0,"change_times":[],"turns":[]},"seal":{},"guesses":[],"amendments":[],"frozen":{"at":"2026-05-04T09:00:00","hash":"0000000000000000000000000000000000000000000000000000000000000000"}}');
INSERT INTO "test" VALUES('f2a13c81-63f3-4cca-b67e-a73cbc79c83f','One broke, one was changed','Which of them?','2026-05-02T09:00:00','{"format":"knotcount.test","version":1,"title":"One broke, one was changed","question":"Which of them?","player":"Runa Veld","created_at":"2026-05-02T09:00:00","stage":"test","players":[{"id":"11111111-2222-4333-8444-555555555555","name":"Runa Veld"}],"builds":[{"build":"Alder 62","note":""},{"build":"Reed 53","note":""},{"build":"Larch 71","note":""}],"extra_columns":[],"card":{"kind":"own","factor":"","comparison":"against_baseline","baseline":"Alder 62","primary":["carry_m"],"want":{"carry_m":{"kind":"more"}},"margins":{},"expectations":{},"expected_order":["Reed 53","Alder 62"],"sd_ratio_margin":1.25,"area_ratio_margin":1.5,"alpha":0.05,"looks":"none","planned_rounds":4,"held":[],"blinding":"open","alone":false,"sees":{"shots":"everyone","averages":"nobody","comparisons":"nobody"},"trend_column":"","factor_column":"","covariates":[],"set_aside_rule":"called","replace_set_aside":true,"good_shots":0,"shapes":[],"targets":[{"metric":"carry_m","build":"Reed 53","low":150.0,"high":156.0}]},"plan":{"schedule":"rotated","rounds":4,"turn_length":3,"seed":"1","change_seconds":90.0,"shot_seconds":30.0,"warm_up":8,"rest_every":25,"rest_seconds":180.0,"change_times":[],"turns":[{"build":0,"round":1,"shots":3},{"build":1,"round":1,"shots":3},{"build":2,"round":1,"shots":3},{"build":1,"round":2,"shots":3},{"build":2,"round":2,"shots":3,"ended":true},{"build":0,"round":2,"shots":3},{"build":0,"round":3,"shots":3},{"build":1,"round":3,"shots":3},{"build":2,"round":3,"shots":3,"ended":true},{"build":1,"round":4,"shots":3},{"build":2,"round":4,"shots":3,"ended":true},{"build":0,"round":4,"shots":3}]},"seal":{},"guesses":[{"build":"Alder 62","said":"Reed 53","turn":""}],"amendments":[],"choices":{"by_feel":{"tag":"Reed 53","at":"2026-05-02T10:00:00"}},"decision":{"what":"change","club":"Reed 53","reason":"it flies","price":"","watch":"","at":"2026-05-02T10:05:00"},"frozen":{"at":"2026-05-02T09:00:00","hash":"0000000000000000000000000000000000000000000000000000000000000000"},"sittings":[{"label":"2026-05-02","started_at":"2026-05-02T09:00:00"}],"progress":{"warmed_up":true,"confirmed":12,"named":0,"handed_over_at":"2026-05-02T09:50:00","in_hand":"Reed 53"}}');
CREATE TABLE test_build(
  test_id TEXT NOT NULL REFERENCES test(id) ON DELETE CASCADE,
  position INTEGER NOT NULL,
  name TEXT NOT NULL,
  PRIMARY KEY(test_id, position)
) WITHOUT ROWID;
INSERT INTO "test_build" VALUES('6b352611-7db8-4f79-a1ba-07597cdd17ba',0,'Tarn 7');
INSERT INTO "test_build" VALUES('6b352611-7db8-4f79-a1ba-07597cdd17ba',1,'Mere 7');
INSERT INTO "test_build" VALUES('6b352611-7db8-4f79-a1ba-07597cdd17ba',2,'Fell 7');
INSERT INTO "test_build" VALUES('6b352611-7db8-4f79-a1ba-07597cdd17ba',3,'Beck 7');
INSERT INTO "test_build" VALUES('78566441-7c45-43ec-be4e-a8bd3725af70',0,'Alder 62');
INSERT INTO "test_build" VALUES('78566441-7c45-43ec-be4e-a8bd3725af70',1,'Reed 53');
INSERT INTO "test_build" VALUES('bace0787-0f51-47df-a7e2-c310c71ed7f1',0,'Tarn 7');
INSERT INTO "test_build" VALUES('bace0787-0f51-47df-a7e2-c310c71ed7f1',1,'Mere 7');
INSERT INTO "test_build" VALUES('f2a13c81-63f3-4cca-b67e-a73cbc79c83f',0,'Alder 62');
INSERT INTO "test_build" VALUES('f2a13c81-63f3-4cca-b67e-a73cbc79c83f',1,'Reed 53');
INSERT INTO "test_build" VALUES('f2a13c81-63f3-4cca-b67e-a73cbc79c83f',2,'Larch 71');
CREATE TABLE test_player(
  test_id TEXT NOT NULL REFERENCES test(id) ON DELETE CASCADE,
  position INTEGER NOT NULL,
  player_id TEXT NOT NULL REFERENCES player(id),
  PRIMARY KEY(test_id, position)
) WITHOUT ROWID;
INSERT INTO "test_player" VALUES('6b352611-7db8-4f79-a1ba-07597cdd17ba',0,'11111111-2222-4333-8444-555555555555');
INSERT INTO "test_player" VALUES('78566441-7c45-43ec-be4e-a8bd3725af70',0,'11111111-2222-4333-8444-555555555555');
INSERT INTO "test_player" VALUES('bace0787-0f51-47df-a7e2-c310c71ed7f1',0,'11111111-2222-4333-8444-555555555555');
INSERT INTO "test_player" VALUES('f2a13c81-63f3-4cca-b67e-a73cbc79c83f',0,'11111111-2222-4333-8444-555555555555');
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
INSERT INTO "turn" VALUES('6b352611-7db8-4f79-a1ba-07597cdd17ba',0,0,0,'1','1','',1);
INSERT INTO "turn" VALUES('6b352611-7db8-4f79-a1ba-07597cdd17ba',1,0,1,'1','2','',1);
INSERT INTO "turn" VALUES('6b352611-7db8-4f79-a1ba-07597cdd17ba',2,0,2,'1','3','',1);
INSERT INTO "turn" VALUES('6b352611-7db8-4f79-a1ba-07597cdd17ba',3,0,3,'1','4','',1);
INSERT INTO "turn" VALUES('6b352611-7db8-4f79-a1ba-07597cdd17ba',4,0,1,'2','5','',1);
INSERT INTO "turn" VALUES('6b352611-7db8-4f79-a1ba-07597cdd17ba',5,0,3,'2','6','',1);
INSERT INTO "turn" VALUES('6b352611-7db8-4f79-a1ba-07597cdd17ba',6,0,0,'2','7','',1);
INSERT INTO "turn" VALUES('6b352611-7db8-4f79-a1ba-07597cdd17ba',7,0,2,'2','8','',1);
INSERT INTO "turn" VALUES('6b352611-7db8-4f79-a1ba-07597cdd17ba',8,0,2,'3','9','',1);
INSERT INTO "turn" VALUES('6b352611-7db8-4f79-a1ba-07597cdd17ba',9,0,0,'3','10','',1);
INSERT INTO "turn" VALUES('6b352611-7db8-4f79-a1ba-07597cdd17ba',10,0,3,'3','11','',1);
INSERT INTO "turn" VALUES('6b352611-7db8-4f79-a1ba-07597cdd17ba',11,0,1,'3','12','',1);
INSERT INTO "turn" VALUES('6b352611-7db8-4f79-a1ba-07597cdd17ba',12,0,1,'4','13','',1);
INSERT INTO "turn" VALUES('6b352611-7db8-4f79-a1ba-07597cdd17ba',13,0,0,'4','14','',1);
INSERT INTO "turn" VALUES('6b352611-7db8-4f79-a1ba-07597cdd17ba',14,0,0,'5','15','',1);
INSERT INTO "turn" VALUES('6b352611-7db8-4f79-a1ba-07597cdd17ba',15,0,1,'5','16','',1);
INSERT INTO "turn" VALUES('78566441-7c45-43ec-be4e-a8bd3725af70',0,0,0,'1','1','',1);
INSERT INTO "turn" VALUES('78566441-7c45-43ec-be4e-a8bd3725af70',1,0,1,'1','2','',1);
INSERT INTO "turn" VALUES('78566441-7c45-43ec-be4e-a8bd3725af70',2,0,1,'2','3','',1);
INSERT INTO "turn" VALUES('78566441-7c45-43ec-be4e-a8bd3725af70',3,0,0,'2','4','',1);
INSERT INTO "turn" VALUES('78566441-7c45-43ec-be4e-a8bd3725af70',4,0,0,'3','5','',1);
INSERT INTO "turn" VALUES('78566441-7c45-43ec-be4e-a8bd3725af70',5,0,1,'3','6','',1);
INSERT INTO "turn" VALUES('78566441-7c45-43ec-be4e-a8bd3725af70',6,0,1,'4','7','',1);
INSERT INTO "turn" VALUES('78566441-7c45-43ec-be4e-a8bd3725af70',7,0,0,'4','8','',1);
INSERT INTO "turn" VALUES('bace0787-0f51-47df-a7e2-c310c71ed7f1',0,0,0,'1','1','',1);
INSERT INTO "turn" VALUES('bace0787-0f51-47df-a7e2-c310c71ed7f1',1,0,1,'1','2','',1);
INSERT INTO "turn" VALUES('f2a13c81-63f3-4cca-b67e-a73cbc79c83f',0,0,0,'1','1','',1);
INSERT INTO "turn" VALUES('f2a13c81-63f3-4cca-b67e-a73cbc79c83f',1,0,1,'1','2','',1);
INSERT INTO "turn" VALUES('f2a13c81-63f3-4cca-b67e-a73cbc79c83f',2,0,2,'1','3','',1);
INSERT INTO "turn" VALUES('f2a13c81-63f3-4cca-b67e-a73cbc79c83f',3,0,1,'2','4','',1);
INSERT INTO "turn" VALUES('f2a13c81-63f3-4cca-b67e-a73cbc79c83f',4,0,0,'2','6','',1);
INSERT INTO "turn" VALUES('f2a13c81-63f3-4cca-b67e-a73cbc79c83f',5,0,0,'3','7','',1);
INSERT INTO "turn" VALUES('f2a13c81-63f3-4cca-b67e-a73cbc79c83f',6,0,1,'3','8','',1);
INSERT INTO "turn" VALUES('f2a13c81-63f3-4cca-b67e-a73cbc79c83f',7,0,1,'4','10','',1);
INSERT INTO "turn" VALUES('f2a13c81-63f3-4cca-b67e-a73cbc79c83f',8,0,0,'4','12','',1);
CREATE INDEX test_by_player ON test_player(player_id);
CREATE INDEX shot_by_turn ON shot(test_id, turn, status);
CREATE TRIGGER tally_after_insert AFTER INSERT ON shot BEGIN DELETE FROM tally WHERE test_id = new.test_id; END;
CREATE TRIGGER tally_after_delete AFTER DELETE ON shot BEGIN DELETE FROM tally WHERE test_id = old.test_id; END;
CREATE TRIGGER tally_after_update AFTER UPDATE ON shot BEGIN DELETE FROM tally WHERE test_id = new.test_id; END;
COMMIT;
