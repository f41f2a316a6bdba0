/*M!999999\- enable the sandbox mode */ 

/*!40101 SET @OLD_CHARACTER_SET_CLIENT=@@CHARACTER_SET_CLIENT */;
/*!40101 SET @OLD_CHARACTER_SET_RESULTS=@@CHARACTER_SET_RESULTS */;
/*!40101 SET @OLD_COLLATION_CONNECTION=@@COLLATION_CONNECTION */;
/*!40101 SET NAMES utf8mb4 */;
/*!40103 SET @OLD_TIME_ZONE=@@TIME_ZONE */;
/*!40103 SET TIME_ZONE='+00:00' */;
/*!40014 SET @OLD_UNIQUE_CHECKS=@@UNIQUE_CHECKS, UNIQUE_CHECKS=0 */;
/*!40014 SET @OLD_FOREIGN_KEY_CHECKS=@@FOREIGN_KEY_CHECKS, FOREIGN_KEY_CHECKS=0 */;
/*!40101 SET @OLD_SQL_MODE=@@SQL_MODE, SQL_MODE='NO_AUTO_VALUE_ON_ZERO' */;
/*!40111 SET @OLD_SQL_NOTES=@@SQL_NOTES, SQL_NOTES=0 */;
DROP TABLE IF EXISTS `calls`;
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `calls` (
  `show_id` int(11) NOT NULL,
  `cue_id` int(11) NOT NULL,
  `place` int(11) NOT NULL,
  `device_id` int(11) NOT NULL,
  `phrase_id` int(11) NOT NULL,
  `amount` varchar(220) NOT NULL DEFAULT '',
  `motion` varchar(1000) NOT NULL DEFAULT '',
  `late` varchar(40) NOT NULL DEFAULT '',
  PRIMARY KEY (`show_id`,`cue_id`,`place`),
  CONSTRAINT `calls_ibfk_1` FOREIGN KEY (`show_id`) REFERENCES `shows` (`id`) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_ci;
/*!40101 SET character_set_client = @saved_cs_client */;

LOCK TABLES `calls` WRITE;
/*!40000 ALTER TABLE `calls` DISABLE KEYS */;
INSERT INTO `calls` VALUES (1,94,0,1,3,'','','');
INSERT INTO `calls` VALUES (1,94,1,26,34,'','','');
INSERT INTO `calls` VALUES (1,94,2,26,36,'','','');
INSERT INTO `calls` VALUES (1,94,3,39,42,'','','');
INSERT INTO `calls` VALUES (1,94,4,49,51,'','','');
INSERT INTO `calls` VALUES (1,94,5,54,56,'','','');
INSERT INTO `calls` VALUES (1,95,0,1,3,'','','');
INSERT INTO `calls` VALUES (1,96,0,1,4,'','','');
INSERT INTO `calls` VALUES (1,96,1,26,38,'','','');
INSERT INTO `calls` VALUES (1,98,0,1,2,'','','');
INSERT INTO `calls` VALUES (1,98,1,26,28,'','','');
INSERT INTO `calls` VALUES (1,98,2,54,57,'','','');
INSERT INTO `calls` VALUES (1,99,0,26,35,'','','');
INSERT INTO `calls` VALUES (1,99,1,49,53,'','','');
INSERT INTO `calls` VALUES (1,100,0,1,5,'','','');
INSERT INTO `calls` VALUES (1,100,1,49,50,'','','');
INSERT INTO `calls` VALUES (1,101,0,85,88,'','','');
INSERT INTO `calls` VALUES (1,101,1,85,89,'','','');
INSERT INTO `calls` VALUES (1,101,2,54,64,'number -15.0','','');
INSERT INTO `calls` VALUES (1,102,0,1,6,'','','');
INSERT INTO `calls` VALUES (1,102,1,49,51,'','','');
INSERT INTO `calls` VALUES (1,104,0,1,7,'','','');
INSERT INTO `calls` VALUES (1,104,1,39,43,'','','');
INSERT INTO `calls` VALUES (1,104,2,54,58,'','','');
INSERT INTO `calls` VALUES (1,104,3,67,68,'','','');
INSERT INTO `calls` VALUES (1,104,4,75,76,'','','');
INSERT INTO `calls` VALUES (1,104,5,54,64,'number -Infinity','','');
INSERT INTO `calls` VALUES (1,105,0,39,40,'','','');
INSERT INTO `calls` VALUES (1,106,0,1,11,'','','');
INSERT INTO `calls` VALUES (1,106,1,39,40,'','','');
INSERT INTO `calls` VALUES (1,106,2,49,52,'','','');
INSERT INTO `calls` VALUES (1,107,0,1,6,'','','');
INSERT INTO `calls` VALUES (1,107,1,39,40,'','','');
INSERT INTO `calls` VALUES (1,107,2,49,50,'','','');
INSERT INTO `calls` VALUES (1,108,0,1,2,'','','');
INSERT INTO `calls` VALUES (1,108,1,26,38,'','','');
INSERT INTO `calls` VALUES (1,108,2,39,42,'','','');
INSERT INTO `calls` VALUES (1,110,0,1,7,'','','');
INSERT INTO `calls` VALUES (1,110,1,26,30,'','','');
INSERT INTO `calls` VALUES (1,110,2,39,45,'','','');
INSERT INTO `calls` VALUES (1,110,3,54,58,'','','');
INSERT INTO `calls` VALUES (1,110,4,49,52,'','','');
INSERT INTO `calls` VALUES (1,110,5,67,72,'','','');
INSERT INTO `calls` VALUES (1,110,6,75,77,'','','');
INSERT INTO `calls` VALUES (1,110,7,81,82,'','','');
INSERT INTO `calls` VALUES (1,111,0,39,40,'','','');
INSERT INTO `calls` VALUES (1,111,1,49,50,'','','');
INSERT INTO `calls` VALUES (1,111,2,54,62,'number -2.0','','');
INSERT INTO `calls` VALUES (1,112,0,1,8,'','','');
INSERT INTO `calls` VALUES (1,112,1,26,36,'','','');
INSERT INTO `calls` VALUES (1,112,2,39,40,'','','');
INSERT INTO `calls` VALUES (1,112,3,49,52,'','','');
INSERT INTO `calls` VALUES (1,112,4,67,71,'','','');
INSERT INTO `calls` VALUES (1,113,0,49,50,'','','');
INSERT INTO `calls` VALUES (1,114,0,1,7,'','','');
INSERT INTO `calls` VALUES (1,114,1,39,40,'','','');
INSERT INTO `calls` VALUES (1,114,2,67,72,'','','');
INSERT INTO `calls` VALUES (1,115,0,1,8,'','','');
INSERT INTO `calls` VALUES (1,115,1,26,36,'','','');
INSERT INTO `calls` VALUES (1,115,2,39,40,'','','');
INSERT INTO `calls` VALUES (1,115,3,49,52,'','','');
INSERT INTO `calls` VALUES (1,116,0,54,63,'number -4.0','','');
INSERT INTO `calls` VALUES (1,117,0,1,2,'','','');
INSERT INTO `calls` VALUES (1,117,1,26,38,'','','');
INSERT INTO `calls` VALUES (1,117,2,39,42,'','','');
INSERT INTO `calls` VALUES (1,117,3,54,65,'number 1.0','','');
INSERT INTO `calls` VALUES (1,119,0,1,19,'','','');
INSERT INTO `calls` VALUES (1,119,1,26,31,'','','');
INSERT INTO `calls` VALUES (1,119,2,54,59,'','','');
INSERT INTO `calls` VALUES (1,120,0,26,35,'','','');
INSERT INTO `calls` VALUES (1,120,1,49,53,'','','');
INSERT INTO `calls` VALUES (1,121,0,1,6,'','','');
INSERT INTO `calls` VALUES (1,121,1,54,65,'number 0.0','','');
INSERT INTO `calls` VALUES (1,121,2,49,50,'','','');
INSERT INTO `calls` VALUES (1,122,0,26,38,'','','');
INSERT INTO `calls` VALUES (1,122,1,54,57,'','','');
INSERT INTO `calls` VALUES (1,124,0,1,13,'','','');
INSERT INTO `calls` VALUES (1,124,1,26,32,'','','');
INSERT INTO `calls` VALUES (1,124,2,54,60,'','','');
INSERT INTO `calls` VALUES (1,124,3,49,51,'','','');
INSERT INTO `calls` VALUES (1,124,4,67,73,'','','');
INSERT INTO `calls` VALUES (1,125,0,85,90,'','','');
INSERT INTO `calls` VALUES (1,125,1,54,64,'number -5.0','','');
INSERT INTO `calls` VALUES (1,125,2,26,35,'','','');
INSERT INTO `calls` VALUES (1,126,0,1,12,'','','');
INSERT INTO `calls` VALUES (1,126,1,85,87,'','','');
INSERT INTO `calls` VALUES (1,127,0,1,13,'','','');
INSERT INTO `calls` VALUES (1,128,0,1,17,'','','');
INSERT INTO `calls` VALUES (1,128,1,49,50,'','','');
INSERT INTO `calls` VALUES (1,128,2,54,64,'number -15.0','','');
INSERT INTO `calls` VALUES (1,129,0,1,12,'','','');
INSERT INTO `calls` VALUES (1,129,1,26,36,'','','');
INSERT INTO `calls` VALUES (1,130,0,1,13,'','','');
INSERT INTO `calls` VALUES (1,131,0,1,2,'','','');
INSERT INTO `calls` VALUES (1,131,1,26,38,'','','');
INSERT INTO `calls` VALUES (1,131,2,85,91,'','','');
INSERT INTO `calls` VALUES (1,131,3,54,64,'number -Infinity','','');
INSERT INTO `calls` VALUES (1,133,0,1,3,'','','');
INSERT INTO `calls` VALUES (1,133,1,26,34,'','','');
INSERT INTO `calls` VALUES (1,133,2,39,42,'','','');
INSERT INTO `calls` VALUES (1,133,3,54,56,'','','');
INSERT INTO `calls` VALUES (1,133,4,49,51,'','','');
INSERT INTO `calls` VALUES (1,134,0,26,35,'','','');
INSERT INTO `calls` VALUES (1,135,0,1,4,'','','');
INSERT INTO `calls` VALUES (1,135,1,26,38,'','','');
INSERT INTO `calls` VALUES (1,137,0,1,9,'','','');
INSERT INTO `calls` VALUES (1,137,1,39,47,'','','');
INSERT INTO `calls` VALUES (1,137,2,54,58,'','','');
INSERT INTO `calls` VALUES (1,137,3,49,52,'','','');
INSERT INTO `calls` VALUES (1,137,4,26,29,'','','');
INSERT INTO `calls` VALUES (1,137,5,67,69,'','','');
INSERT INTO `calls` VALUES (1,137,6,75,78,'','','');
INSERT INTO `calls` VALUES (1,137,7,81,82,'','','');
INSERT INTO `calls` VALUES (1,138,0,1,16,'','','');
INSERT INTO `calls` VALUES (1,138,1,49,50,'','','');
INSERT INTO `calls` VALUES (1,138,2,54,62,'number -2.0','move|2 beats|STRAIGHT||0','');
INSERT INTO `calls` VALUES (1,139,0,1,11,'','','');
INSERT INTO `calls` VALUES (1,139,1,39,40,'','','');
INSERT INTO `calls` VALUES (1,140,0,39,40,'','','');
INSERT INTO `calls` VALUES (1,141,0,1,8,'','','');
INSERT INTO `calls` VALUES (1,141,1,49,52,'','','');
INSERT INTO `calls` VALUES (1,141,2,26,35,'','','');
INSERT INTO `calls` VALUES (1,141,3,67,71,'','','');
INSERT INTO `calls` VALUES (1,142,0,1,9,'','','');
INSERT INTO `calls` VALUES (1,142,1,49,51,'','','');
INSERT INTO `calls` VALUES (1,142,2,39,40,'','','');
INSERT INTO `calls` VALUES (1,143,0,1,16,'','','');
INSERT INTO `calls` VALUES (1,143,1,49,50,'','','');
INSERT INTO `calls` VALUES (1,143,2,39,40,'','','');
INSERT INTO `calls` VALUES (1,143,3,67,69,'','','');
INSERT INTO `calls` VALUES (1,144,0,1,9,'','','');
INSERT INTO `calls` VALUES (1,144,1,39,40,'','','');
INSERT INTO `calls` VALUES (1,144,2,49,52,'','','');
INSERT INTO `calls` VALUES (1,144,3,54,64,'number -5.0','move|8 beats|STRAIGHT||0','');
INSERT INTO `calls` VALUES (1,145,0,1,5,'','','');
INSERT INTO `calls` VALUES (1,145,1,49,50,'','','');
INSERT INTO `calls` VALUES (1,145,2,54,64,'number -30.0','move|4 s|STRAIGHT||0','');
INSERT INTO `calls` VALUES (1,145,3,54,62,'number -12.0','move|8 beats|S_CURVE||0','');
INSERT INTO `calls` VALUES (1,146,0,39,42,'','','');
INSERT INTO `calls` VALUES (1,146,1,26,38,'','','');
INSERT INTO `calls` VALUES (1,148,0,1,14,'','','');
INSERT INTO `calls` VALUES (1,148,1,26,33,'','','');
INSERT INTO `calls` VALUES (1,148,2,39,48,'','','');
INSERT INTO `calls` VALUES (1,148,3,54,58,'','','');
INSERT INTO `calls` VALUES (1,148,4,49,50,'','','');
INSERT INTO `calls` VALUES (1,148,5,67,70,'','','');
INSERT INTO `calls` VALUES (1,148,6,75,79,'','','');
INSERT INTO `calls` VALUES (1,148,7,81,82,'','','');
INSERT INTO `calls` VALUES (1,149,0,26,35,'','','');
INSERT INTO `calls` VALUES (1,150,0,1,10,'','','');
INSERT INTO `calls` VALUES (1,150,1,49,51,'','','');
INSERT INTO `calls` VALUES (1,150,2,54,66,'number -60.0','','');
INSERT INTO `calls` VALUES (1,151,0,1,6,'','','');
INSERT INTO `calls` VALUES (1,151,1,39,42,'','','');
INSERT INTO `calls` VALUES (1,151,2,49,50,'','','');
INSERT INTO `calls` VALUES (1,152,0,1,2,'','','');
INSERT INTO `calls` VALUES (1,152,1,26,38,'','','');
INSERT INTO `calls` VALUES (1,154,0,1,25,'','','');
INSERT INTO `calls` VALUES (1,154,1,54,61,'','','');
INSERT INTO `calls` VALUES (1,154,2,49,51,'','','');
INSERT INTO `calls` VALUES (1,155,0,1,3,'','','');
INSERT INTO `calls` VALUES (1,155,1,54,56,'','','');
INSERT INTO `calls` VALUES (2,46,0,1,3,'','','');
INSERT INTO `calls` VALUES (2,46,1,13,16,'','','');
INSERT INTO `calls` VALUES (2,46,2,21,24,'','','');
INSERT INTO `calls` VALUES (2,46,3,29,31,'','','');
INSERT INTO `calls` VALUES (2,46,4,33,34,'','','');
INSERT INTO `calls` VALUES (2,47,0,13,18,'','','');
INSERT INTO `calls` VALUES (2,48,0,13,15,'','','');
INSERT INTO `calls` VALUES (2,48,1,33,39,'','','');
INSERT INTO `calls` VALUES (2,49,0,13,18,'','','');
INSERT INTO `calls` VALUES (2,51,0,1,4,'','','');
INSERT INTO `calls` VALUES (2,51,1,29,30,'','','');
INSERT INTO `calls` VALUES (2,51,2,13,20,'','','');
INSERT INTO `calls` VALUES (2,51,3,33,41,'','','');
INSERT INTO `calls` VALUES (2,51,4,33,44,'','','');
INSERT INTO `calls` VALUES (2,52,0,29,32,'','','');
INSERT INTO `calls` VALUES (2,52,1,33,39,'','','');
INSERT INTO `calls` VALUES (2,54,0,1,5,'','','');
INSERT INTO `calls` VALUES (2,54,1,21,25,'','','');
INSERT INTO `calls` VALUES (2,54,2,33,35,'','','');
INSERT INTO `calls` VALUES (2,54,3,29,32,'','','');
INSERT INTO `calls` VALUES (2,54,4,13,16,'','','');
INSERT INTO `calls` VALUES (2,55,0,13,18,'','','');
INSERT INTO `calls` VALUES (2,56,0,21,22,'','','');
INSERT INTO `calls` VALUES (2,56,1,29,30,'','','');
INSERT INTO `calls` VALUES (2,57,0,1,7,'','','');
INSERT INTO `calls` VALUES (2,57,1,21,22,'','','');
INSERT INTO `calls` VALUES (2,57,2,29,31,'','','');
INSERT INTO `calls` VALUES (2,58,0,21,22,'','','');
INSERT INTO `calls` VALUES (2,58,1,29,32,'','','');
INSERT INTO `calls` VALUES (2,59,0,1,5,'','','');
INSERT INTO `calls` VALUES (2,59,1,21,24,'','','');
INSERT INTO `calls` VALUES (2,59,2,33,39,'','','');
INSERT INTO `calls` VALUES (2,61,0,1,9,'','','');
INSERT INTO `calls` VALUES (2,61,1,21,26,'','','');
INSERT INTO `calls` VALUES (2,61,2,29,32,'','','');
INSERT INTO `calls` VALUES (2,61,3,33,41,'','','');
INSERT INTO `calls` VALUES (2,62,0,21,22,'','','');
INSERT INTO `calls` VALUES (2,62,1,29,30,'','','');
INSERT INTO `calls` VALUES (2,63,0,1,11,'','','');
INSERT INTO `calls` VALUES (2,63,1,21,22,'','','');
INSERT INTO `calls` VALUES (2,63,2,29,31,'','','');
INSERT INTO `calls` VALUES (2,64,0,1,9,'','','');
INSERT INTO `calls` VALUES (2,64,1,29,32,'','','');
INSERT INTO `calls` VALUES (2,65,0,1,11,'','','');
INSERT INTO `calls` VALUES (2,65,1,21,22,'','','');
INSERT INTO `calls` VALUES (2,65,2,29,31,'','','');
INSERT INTO `calls` VALUES (2,66,0,21,24,'','','');
INSERT INTO `calls` VALUES (2,66,1,29,30,'','','');
INSERT INTO `calls` VALUES (2,66,2,1,5,'','','');
INSERT INTO `calls` VALUES (2,68,0,1,4,'','','');
INSERT INTO `calls` VALUES (2,68,1,33,36,'','','');
INSERT INTO `calls` VALUES (2,68,2,33,42,'','','');
INSERT INTO `calls` VALUES (2,68,3,29,30,'','','');
INSERT INTO `calls` VALUES (2,68,4,13,20,'','','');
INSERT INTO `calls` VALUES (2,69,0,1,8,'','','');
INSERT INTO `calls` VALUES (2,69,1,29,31,'','','');
INSERT INTO `calls` VALUES (2,70,0,33,43,'','','');
INSERT INTO `calls` VALUES (2,70,1,33,39,'','','');
INSERT INTO `calls` VALUES (2,72,0,1,4,'','','');
INSERT INTO `calls` VALUES (2,72,1,33,37,'','','');
INSERT INTO `calls` VALUES (2,72,2,29,30,'','','');
INSERT INTO `calls` VALUES (2,72,3,33,41,'','','');
INSERT INTO `calls` VALUES (2,73,0,13,15,'','','');
INSERT INTO `calls` VALUES (2,74,0,13,19,'','','');
INSERT INTO `calls` VALUES (2,75,0,13,20,'','','');
INSERT INTO `calls` VALUES (2,75,1,29,31,'','','');
INSERT INTO `calls` VALUES (2,76,0,29,30,'','','');
INSERT INTO `calls` VALUES (2,77,0,33,39,'','','');
INSERT INTO `calls` VALUES (2,77,1,1,8,'','','');
INSERT INTO `calls` VALUES (2,79,0,1,10,'','','');
INSERT INTO `calls` VALUES (2,79,1,13,17,'','','');
INSERT INTO `calls` VALUES (2,79,2,33,38,'','','');
INSERT INTO `calls` VALUES (2,79,3,29,31,'','','');
INSERT INTO `calls` VALUES (2,80,0,13,18,'','','');
INSERT INTO `calls` VALUES (2,81,0,33,40,'','','');
INSERT INTO `calls` VALUES (2,82,0,33,41,'','','');
INSERT INTO `calls` VALUES (2,82,1,1,12,'','','');
INSERT INTO `calls` VALUES (2,83,0,29,30,'','','');
INSERT INTO `calls` VALUES (2,85,0,1,6,'','','');
INSERT INTO `calls` VALUES (2,85,1,21,27,'','','');
INSERT INTO `calls` VALUES (2,85,2,33,35,'','','');
INSERT INTO `calls` VALUES (2,85,3,29,32,'','','');
INSERT INTO `calls` VALUES (2,85,4,13,19,'','','');
INSERT INTO `calls` VALUES (2,86,0,21,22,'','','');
INSERT INTO `calls` VALUES (2,86,1,29,30,'','','');
INSERT INTO `calls` VALUES (2,87,0,1,8,'','','');
INSERT INTO `calls` VALUES (2,87,1,21,22,'','','');
INSERT INTO `calls` VALUES (2,87,2,29,31,'','','');
INSERT INTO `calls` VALUES (2,88,0,1,11,'','','');
INSERT INTO `calls` VALUES (2,88,1,21,22,'','','');
INSERT INTO `calls` VALUES (2,88,2,29,31,'','','');
INSERT INTO `calls` VALUES (2,89,0,33,40,'','','');
INSERT INTO `calls` VALUES (2,90,0,1,10,'','','');
INSERT INTO `calls` VALUES (2,90,1,21,24,'','','');
INSERT INTO `calls` VALUES (2,90,2,29,32,'','','');
INSERT INTO `calls` VALUES (2,90,3,33,39,'','','');
INSERT INTO `calls` VALUES (2,91,0,13,17,'','','');
INSERT INTO `calls` VALUES (2,91,1,29,31,'','','');
INSERT INTO `calls` VALUES (2,92,0,13,18,'','','');
INSERT INTO `calls` VALUES (2,94,0,1,12,'','','');
INSERT INTO `calls` VALUES (2,94,1,21,28,'','','');
INSERT INTO `calls` VALUES (2,94,2,29,32,'','','');
INSERT INTO `calls` VALUES (2,94,3,13,20,'','','');
INSERT INTO `calls` VALUES (2,95,0,21,22,'','','');
INSERT INTO `calls` VALUES (2,95,1,29,30,'','','');
INSERT INTO `calls` VALUES (2,96,0,21,22,'','','');
INSERT INTO `calls` VALUES (2,96,1,29,31,'','','');
INSERT INTO `calls` VALUES (2,97,0,1,10,'','','');
INSERT INTO `calls` VALUES (2,97,1,21,24,'','','');
INSERT INTO `calls` VALUES (2,97,2,33,41,'','','');
INSERT INTO `calls` VALUES (2,99,0,1,11,'','','');
INSERT INTO `calls` VALUES (2,99,1,13,15,'','','');
INSERT INTO `calls` VALUES (2,99,2,33,34,'','','');
INSERT INTO `calls` VALUES (2,99,3,29,31,'','','');
INSERT INTO `calls` VALUES (2,100,0,13,18,'','','');
INSERT INTO `calls` VALUES (2,101,0,1,2,'','','');
INSERT INTO `calls` VALUES (2,101,1,13,20,'','','');
INSERT INTO `calls` VALUES (2,101,2,13,14,'','','');
INSERT INTO `calls` VALUES (4,5,0,2,3,'text a; b + c @ 2 s','','');
INSERT INTO `calls` VALUES (4,5,1,2,4,'number -7.5','move|3 s|POINTS|0.25=-8.0 0.5=-12.0|3','−200 ms');
INSERT INTO `calls` VALUES (4,5,2,2,4,'number -5.0','wave|SINE|2.0|2 beats|-Infinity|Infinity|0 s','');
/*!40000 ALTER TABLE `calls` ENABLE KEYS */;
UNLOCK TABLES;
DROP TABLE IF EXISTS `cues`;
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `cues` (
  `show_id` int(11) NOT NULL,
  `id` int(11) NOT NULL,
  `item_id` int(11) NOT NULL,
  `number` decimal(8,3) NOT NULL,
  `starts` varchar(40) NOT NULL,
  `what` varchar(200) NOT NULL,
  `version` int(11) NOT NULL,
  `mark` varchar(12) NOT NULL DEFAULT 'NONE',
  `note` varchar(500) NOT NULL DEFAULT '',
  PRIMARY KEY (`show_id`,`id`),
  CONSTRAINT `cues_ibfk_1` FOREIGN KEY (`show_id`) REFERENCES `shows` (`id`) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_ci;
/*!40101 SET character_set_client = @saved_cs_client */;

LOCK TABLES `cues` WRITE;
/*!40000 ALTER TABLE `cues` DISABLE KEYS */;
INSERT INTO `cues` VALUES (1,94,93,1.000,'by hand','Doors open',95,'NONE','');
INSERT INTO `cues` VALUES (1,95,93,2.000,'by hand','Half hour',96,'NONE','');
INSERT INTO `cues` VALUES (1,96,93,3.000,'by hand','Clearance from front of house',97,'NONE','');
INSERT INTO `cues` VALUES (1,98,97,10.000,'by hand','House out',99,'NONE','');
INSERT INTO `cues` VALUES (1,99,97,11.000,'after 3 s','River wakes',100,'NONE','');
INSERT INTO `cues` VALUES (1,100,97,20.000,'by hand','Mara lifts the lamp',101,'NONE','');
INSERT INTO `cues` VALUES (1,101,97,20.500,'after 4 s','Oars',102,'NONE','');
INSERT INTO `cues` VALUES (1,102,97,21.000,'by hand','“Is anyone across?”',103,'NONE','');
INSERT INTO `cues` VALUES (1,104,103,24.000,'by hand','Count-in',105,'NONE','');
INSERT INTO `cues` VALUES (1,105,103,25.000,'after 6 s','Second page',106,'NONE','');
INSERT INTO `cues` VALUES (1,106,103,26.000,'by hand','Verse 2',107,'NONE','');
INSERT INTO `cues` VALUES (1,107,103,27.000,'by hand','Last line',108,'NONE','');
INSERT INTO `cues` VALUES (1,108,103,28.000,'by hand','Button',109,'NONE','');
INSERT INTO `cues` VALUES (1,110,109,30.000,'by hand','Count-in',111,'NONE','');
INSERT INTO `cues` VALUES (1,111,109,31.000,'by hand','Verse 1',112,'NONE','');
INSERT INTO `cues` VALUES (1,112,109,32.000,'by hand','Chorus',113,'NONE','');
INSERT INTO `cues` VALUES (1,113,109,33.000,'by hand','Last line, hold',114,'SKY','Wait until she breathes');
INSERT INTO `cues` VALUES (1,114,109,34.000,'by hand','Verse 2',115,'NONE','');
INSERT INTO `cues` VALUES (1,115,109,35.000,'by hand','Chorus again',116,'NONE','');
INSERT INTO `cues` VALUES (1,116,109,35.500,'with','Lamps all lit',117,'NONE','');
INSERT INTO `cues` VALUES (1,117,109,36.000,'by hand','Blackout on the button',118,'NONE','');
INSERT INTO `cues` VALUES (1,119,118,40.000,'by hand','Film',120,'NONE','');
INSERT INTO `cues` VALUES (1,120,118,41.000,'after 1.5 s','Roll',121,'NONE','');
INSERT INTO `cues` VALUES (1,121,118,42.000,'by hand','Mara at the rail',122,'NONE','');
INSERT INTO `cues` VALUES (1,122,118,43.000,'by hand','Film out',123,'NONE','');
INSERT INTO `cues` VALUES (1,124,123,50.000,'by hand','Wind',125,'NONE','');
INSERT INTO `cues` VALUES (1,125,123,50.200,'with','Rain on the roof',126,'NONE','');
INSERT INTO `cues` VALUES (1,126,123,51.000,'by hand','Lightning',127,'NONE','');
INSERT INTO `cues` VALUES (1,127,123,51.500,'after 0.4 s','and dark',128,'NONE','');
INSERT INTO `cues` VALUES (1,128,123,52.000,'by hand','“Hold her straight!”',129,'NONE','');
INSERT INTO `cues` VALUES (1,129,123,53.000,'by hand','Lightning',130,'NONE','');
INSERT INTO `cues` VALUES (1,130,123,53.500,'after 0.4 s','and dark',131,'NONE','');
INSERT INTO `cues` VALUES (1,131,123,54.000,'by hand','The lantern goes out',132,'VERMILION','Crew crosses in the dark: clear first');
INSERT INTO `cues` VALUES (1,133,132,60.000,'by hand','House up',134,'NONE','');
INSERT INTO `cues` VALUES (1,134,132,60.500,'after 2 s','Titles',135,'NONE','');
INSERT INTO `cues` VALUES (1,135,132,61.000,'by hand','House out',136,'NONE','');
INSERT INTO `cues` VALUES (1,137,136,70.000,'by hand','Count-in',138,'NONE','');
INSERT INTO `cues` VALUES (1,138,136,71.000,'at A','“A penny for the river”',139,'NONE','');
INSERT INTO `cues` VALUES (1,139,136,71.500,'at 9:1','Second half',140,'NONE','');
INSERT INTO `cues` VALUES (1,140,136,72.000,'at B −1 beat','Page for the chorus',141,'NONE','');
INSERT INTO `cues` VALUES (1,141,136,72.200,'at B','Chorus',142,'NONE','');
INSERT INTO `cues` VALUES (1,142,136,72.400,'at 17:1','“Over, over”',143,'NONE','');
INSERT INTO `cues` VALUES (1,143,136,73.000,'at C','Verse 2',144,'NONE','');
INSERT INTO `cues` VALUES (1,144,136,74.000,'at E','Patter',145,'NONE','');
INSERT INTO `cues` VALUES (1,145,136,75.000,'at F','Slowing',146,'NONE','');
INSERT INTO `cues` VALUES (1,146,136,76.000,'by hand','Out',147,'NONE','');
INSERT INTO `cues` VALUES (1,148,147,80.000,'by hand','First light',149,'NONE','');
INSERT INTO `cues` VALUES (1,149,147,80.500,'after 2 s','Sun',150,'NONE','');
INSERT INTO `cues` VALUES (1,150,147,81.000,'at 9:1','All',151,'NONE','');
INSERT INTO `cues` VALUES (1,151,147,82.000,'at 57:1','Last note',152,'NONE','');
INSERT INTO `cues` VALUES (1,152,147,83.000,'by hand','End of play',153,'NONE','');
INSERT INTO `cues` VALUES (1,154,153,90.000,'by hand','Bows',155,'NONE','');
INSERT INTO `cues` VALUES (1,155,153,91.000,'by hand','House up',156,'NONE','');
INSERT INTO `cues` VALUES (2,46,45,1.000,'by hand','Field opens',47,'NONE','');
INSERT INTO `cues` VALUES (2,47,45,1.500,'after 2 s','Meadow',48,'NONE','');
INSERT INTO `cues` VALUES (2,48,45,2.000,'by hand','Five minutes',49,'NONE','');
INSERT INTO `cues` VALUES (2,49,45,2.500,'after 1 s','Titles',50,'NONE','');
INSERT INTO `cues` VALUES (2,51,50,5.000,'by hand','Leader walks on',52,'NONE','');
INSERT INTO `cues` VALUES (2,52,50,6.000,'by hand','To the band',53,'NONE','');
INSERT INTO `cues` VALUES (2,54,53,10.000,'by hand','Intro',55,'NONE','');
INSERT INTO `cues` VALUES (2,55,53,10.500,'after 1 s','Loop',56,'NONE','');
INSERT INTO `cues` VALUES (2,56,53,11.000,'by hand','Verse 1, second half',57,'NONE','');
INSERT INTO `cues` VALUES (2,57,53,12.000,'by hand','Refrain',58,'NONE','');
INSERT INTO `cues` VALUES (2,58,53,13.000,'by hand','Refrain again',59,'NONE','');
INSERT INTO `cues` VALUES (2,59,53,14.000,'by hand','Ending',60,'NONE','');
INSERT INTO `cues` VALUES (2,61,60,20.000,'by hand','Drums',62,'NONE','');
INSERT INTO `cues` VALUES (2,62,60,21.000,'by hand','Verse',63,'NONE','');
INSERT INTO `cues` VALUES (2,63,60,22.000,'by hand','Chorus',64,'NONE','');
INSERT INTO `cues` VALUES (2,64,60,23.000,'by hand','Break',65,'NONE','');
INSERT INTO `cues` VALUES (2,65,60,24.000,'by hand','Chorus',66,'NONE','');
INSERT INTO `cues` VALUES (2,66,60,25.000,'by hand','Cut',67,'NONE','');
INSERT INTO `cues` VALUES (2,68,67,30.000,'by hand','Reader to the stand',69,'NONE','');
INSERT INTO `cues` VALUES (2,69,67,31.000,'by hand','“In the middle of the night”',70,'NONE','');
INSERT INTO `cues` VALUES (2,70,67,32.000,'by hand','Reader sits',71,'NONE','');
INSERT INTO `cues` VALUES (2,72,71,40.000,'by hand','Speaker',73,'NONE','');
INSERT INTO `cues` VALUES (2,73,71,41.000,'by hand','Title slide',74,'NONE','');
INSERT INTO `cues` VALUES (2,74,71,41.500,'with','Roll',75,'NONE','');
INSERT INTO `cues` VALUES (2,75,71,42.000,'by hand','Slide away',76,'NONE','');
INSERT INTO `cues` VALUES (2,76,71,43.000,'by hand','Speaker close',77,'NONE','');
INSERT INTO `cues` VALUES (2,77,71,44.000,'by hand','Last words',78,'NONE','');
INSERT INTO `cues` VALUES (2,79,78,50.000,'by hand','Candles',80,'NONE','');
INSERT INTO `cues` VALUES (2,80,78,50.500,'after 3 s','Flames',81,'NONE','');
INSERT INTO `cues` VALUES (2,81,78,51.000,'by hand','Pad grows',82,'NONE','');
INSERT INTO `cues` VALUES (2,82,78,52.000,'by hand','Silence',83,'NONE','');
INSERT INTO `cues` VALUES (2,83,78,53.000,'by hand','Bell',84,'NONE','');
INSERT INTO `cues` VALUES (2,85,84,60.000,'by hand','Intro',86,'NONE','');
INSERT INTO `cues` VALUES (2,86,84,61.000,'at B','Verse',87,'NONE','');
INSERT INTO `cues` VALUES (2,87,84,62.000,'at C −1 beat','“Carry us”',88,'NONE','');
INSERT INTO `cues` VALUES (2,88,84,63.000,'at D','Everyone',89,'NONE','');
INSERT INTO `cues` VALUES (2,89,84,63.500,'with','Pad',90,'NONE','');
INSERT INTO `cues` VALUES (2,90,84,64.000,'at E','Down',91,'NONE','');
INSERT INTO `cues` VALUES (2,91,84,65.000,'at F','The lanterns, film',92,'NONE','');
INSERT INTO `cues` VALUES (2,92,84,65.500,'after 1 s','Roll',93,'NONE','');
INSERT INTO `cues` VALUES (2,94,93,70.000,'by hand','Guitar alone',95,'NONE','');
INSERT INTO `cues` VALUES (2,95,93,71.000,'by hand','Page 2',96,'NONE','');
INSERT INTO `cues` VALUES (2,96,93,72.000,'by hand','Page 3',97,'NONE','');
INSERT INTO `cues` VALUES (2,97,93,73.000,'by hand','Last chord',98,'NONE','');
INSERT INTO `cues` VALUES (2,99,98,80.000,'by hand','Field bright',100,'NONE','');
INSERT INTO `cues` VALUES (2,100,98,80.500,'after 2 s','Titles',101,'NONE','');
INSERT INTO `cues` VALUES (2,101,98,81.000,'by hand','Field clear',102,'NONE','');
INSERT INTO `cues` VALUES (4,5,1,1.500,'at 3:2 −20 ms','Oars',3,'SKY','quietly');
/*!40000 ALTER TABLE `cues` ENABLE KEYS */;
UNLOCK TABLES;
DROP TABLE IF EXISTS `devices`;
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `devices` (
  `show_id` int(11) NOT NULL,
  `id` int(11) NOT NULL,
  `place` int(11) NOT NULL,
  `name` varchar(60) NOT NULL,
  `department` varchar(20) NOT NULL,
  `wire` varchar(20) NOT NULL,
  `host` varchar(253) NOT NULL,
  `port` int(11) NOT NULL,
  `question` varchar(200) NOT NULL,
  `channel` int(11) NOT NULL,
  `first_program` int(11) NOT NULL,
  `first_octave` int(11) NOT NULL,
  `lead_ms` int(11) NOT NULL,
  `list_kind` varchar(12) NOT NULL DEFAULT '',
  `list_first` int(11) NOT NULL DEFAULT 0,
  `bank_size` int(11) NOT NULL DEFAULT 0,
  `value_style` varchar(10) NOT NULL DEFAULT 'FROM_0',
  `flats` tinyint(1) NOT NULL DEFAULT 0,
  `first_place` int(11) NOT NULL DEFAULT 1,
  `levels` varchar(2000) NOT NULL DEFAULT '',
  `settle_ms` int(11) NOT NULL DEFAULT 0,
  PRIMARY KEY (`show_id`,`id`),
  CONSTRAINT `devices_ibfk_1` FOREIGN KEY (`show_id`) REFERENCES `shows` (`id`) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_ci;
/*!40101 SET character_set_client = @saved_cs_client */;

LOCK TABLES `devices` WRITE;
/*!40000 ALTER TABLE `devices` DISABLE KEYS */;
INSERT INTO `devices` VALUES (1,1,0,'FOH lights','LIGHTS','network-midi','127.0.0.1',48100,'',0,1,-2,40,'NOTE',0,0,'FROM_0',0,1,'',0);
INSERT INTO `devices` VALUES (1,26,1,'River screen','VIDEO','network-midi','127.0.0.1',48102,'',1,1,-2,120,'',0,0,'FROM_0',0,1,'',0);
INSERT INTO `devices` VALUES (1,39,2,'Words screen','WORDS','network-midi','127.0.0.1',48104,'',2,1,-2,0,'',0,0,'FROM_0',0,1,'',0);
INSERT INTO `devices` VALUES (1,49,3,'Camera switcher','CAMERAS','osc-udp','127.0.0.1',48106,'/camera/program',0,0,-2,80,'',0,0,'FROM_0',0,1,'',0);
INSERT INTO `devices` VALUES (1,54,4,'Sound console','SOUND','network-midi','127.0.0.1',48108,'',4,1,-2,0,'',0,0,'FROM_0',0,1,'−∞=0, −60=6, −40=18, −30=32, −20=51, −10=78, −5=95, 0=110, 10=127',0);
INSERT INTO `devices` VALUES (1,67,5,'Keys 2','KEYS','network-midi','127.0.0.1',48110,'',5,1,-2,0,'',0,0,'FROM_0',0,1,'',0);
INSERT INTO `devices` VALUES (1,75,6,'Vocal tuning','SOUND','network-midi','127.0.0.1',48112,'',6,0,-2,0,'',0,0,'FROM_0',0,1,'',0);
INSERT INTO `devices` VALUES (1,81,7,'Band tablet','WORDS','network-midi','127.0.0.1',48114,'',7,1,-2,0,'',0,0,'FROM_0',0,1,'',0);
INSERT INTO `devices` VALUES (1,85,8,'Sound player','SOUND','network-midi','127.0.0.1',48116,'',8,1,-2,0,'',0,0,'FROM_0',0,1,'',0);
INSERT INTO `devices` VALUES (2,1,0,'FOH lights','LIGHTS','network-midi','127.0.0.1',48100,'',0,1,-2,40,'',0,0,'FROM_0',0,1,'',0);
INSERT INTO `devices` VALUES (2,13,1,'River screen','VIDEO','network-midi','127.0.0.1',48102,'',1,1,-2,120,'',0,0,'FROM_0',0,1,'',0);
INSERT INTO `devices` VALUES (2,21,2,'Words screen','WORDS','network-midi','127.0.0.1',48104,'',2,1,-2,0,'',0,0,'FROM_0',0,1,'',0);
INSERT INTO `devices` VALUES (2,29,3,'Camera switcher','CAMERAS','osc-udp','127.0.0.1',48106,'/camera/program',0,0,-2,80,'',0,0,'FROM_0',0,1,'',0);
INSERT INTO `devices` VALUES (2,33,4,'Sound console','SOUND','network-midi','127.0.0.1',48108,'',4,1,-2,0,'',0,0,'FROM_0',0,1,'',0);
INSERT INTO `devices` VALUES (4,2,0,'Words; screen','WORDS','osc-udp','127.0.0.1',9000,'',0,0,-2,0,'',0,0,'FROM_0',0,1,'−∞=0, −10=80, 0=100',0);
/*!40000 ALTER TABLE `devices` ENABLE KEYS */;
UNLOCK TABLES;
DROP TABLE IF EXISTS `flyway_schema_history`;
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `flyway_schema_history` (
  `installed_rank` int(11) NOT NULL,
  `version` varchar(50) DEFAULT NULL,
  `description` varchar(200) NOT NULL,
  `type` varchar(20) NOT NULL,
  `script` varchar(1000) NOT NULL,
  `checksum` int(11) DEFAULT NULL,
  `installed_by` varchar(100) NOT NULL,
  `installed_on` timestamp NOT NULL DEFAULT current_timestamp(),
  `execution_time` int(11) NOT NULL,
  `success` tinyint(1) NOT NULL,
  PRIMARY KEY (`installed_rank`),
  KEY `flyway_schema_history_s_idx` (`success`)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_ci;
/*!40101 SET character_set_client = @saved_cs_client */;

LOCK TABLES `flyway_schema_history` WRITE;
/*!40000 ALTER TABLE `flyway_schema_history` DISABLE KEYS */;
INSERT INTO `flyway_schema_history` VALUES (1,'1','shows','SQL','V1__shows.sql',1631459011,'baton','2026-11-26 12:22:16',30,1);
INSERT INTO `flyway_schema_history` VALUES (2,'2','lists','SQL','V2__lists.sql',1641994770,'baton','2026-11-26 12:22:16',11,1);
INSERT INTO `flyway_schema_history` VALUES (3,'3','line checks','SQL','V3__line_checks.sql',593207928,'baton','2026-11-26 12:22:16',3,1);
INSERT INTO `flyway_schema_history` VALUES (4,'4','phrases with amounts','SQL','V4__phrases_with_amounts.sql',1219782295,'baton','2026-11-26 12:22:16',25,1);
INSERT INTO `flyway_schema_history` VALUES (5,'5','scores','SQL','V5__scores.sql',1690635652,'baton','2026-11-26 12:22:16',5,1);
INSERT INTO `flyway_schema_history` VALUES (6,'6','moves','SQL','V6__moves.sql',1361487938,'baton','2026-11-26 12:22:16',8,1);
INSERT INTO `flyway_schema_history` VALUES (7,'7','marks and snippets','SQL','V7__marks_and_snippets.sql',-1095488101,'baton','2026-11-26 12:22:16',16,1);
/*!40000 ALTER TABLE `flyway_schema_history` ENABLE KEYS */;
UNLOCK TABLES;
DROP TABLE IF EXISTS `items`;
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `items` (
  `show_id` int(11) NOT NULL,
  `id` int(11) NOT NULL,
  `place` int(11) NOT NULL,
  `kind` varchar(20) NOT NULL,
  `name` varchar(100) NOT NULL,
  `planned_seconds` int(11) NOT NULL,
  `score` mediumtext NOT NULL DEFAULT '',
  PRIMARY KEY (`show_id`,`id`),
  CONSTRAINT `items_ibfk_1` FOREIGN KEY (`show_id`) REFERENCES `shows` (`id`) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_ci;
/*!40101 SET character_set_client = @saved_cs_client */;

LOCK TABLES `items` WRITE;
/*!40000 ALTER TABLE `items` DISABLE KEYS */;
INSERT INTO `items` VALUES (1,93,0,'OTHER','Doors',900,'');
INSERT INTO `items` VALUES (1,97,1,'SCENE','The slipway at dusk',130,'');
INSERT INTO `items` VALUES (1,103,2,'SONG','Slipway',175,'');
INSERT INTO `items` VALUES (1,109,3,'SONG','Lamps across the water',222,'');
INSERT INTO `items` VALUES (1,118,4,'FILM','The night crossing',277,'');
INSERT INTO `items` VALUES (1,123,5,'SCENE','Storm',380,'');
INSERT INTO `items` VALUES (1,132,6,'INTERVAL','Interval',1200,'');
INSERT INTO `items` VALUES (1,136,7,'SONG','The toll',120,'1 4/4\n1 quarter = 112\n45 quarter = 84 over 4 bars\n51:3 hold 2 s\n1 I Vamp\n5 A Verse 1\n13 B Chorus\n21 C Verse 2\n29 D Chorus 2 as B\n37 E Patter\n45 F Out\n3 vamp 2 bars, leave at the bar, at most 16 times\n52 end');
INSERT INTO `items` VALUES (1,147,8,'SONG','Cold dawn',210,'1 6/8\n1 dotted quarter = 54\n33 dotted quarter = 63 over 4 bars\n57 hold 3 s\n1 I First light\n9 A All\n33 B River\n57 E Last note');
INSERT INTO `items` VALUES (1,153,9,'OTHER','Bows',120,'');
INSERT INTO `items` VALUES (2,45,0,'OTHER','Gathering',1200,'');
INSERT INTO `items` VALUES (2,50,1,'SPEECH','Welcome',180,'');
INSERT INTO `items` VALUES (2,53,2,'SONG','Evening comes softly',250,'');
INSERT INTO `items` VALUES (2,60,3,'SONG','We keep the fire',220,'');
INSERT INTO `items` VALUES (2,67,4,'SPEECH','Reading',240,'');
INSERT INTO `items` VALUES (2,71,5,'SPEECH','Talk',900,'');
INSERT INTO `items` VALUES (2,78,6,'OTHER','Stillness',300,'');
INSERT INTO `items` VALUES (2,84,7,'SONG','Field of lanterns',250,'1 4/4\n1 quarter = 76\n49 quarter = 66 over 8 bars\n1 A Intro\n9 B Verse\n25 C “Carry us”\n33 D Everyone\n49 E Down\n61 F The lanterns\n61 film 0:48 Lanterns\n84 end');
INSERT INTO `items` VALUES (2,93,8,'SONG','Go gently',170,'');
INSERT INTO `items` VALUES (2,98,9,'OTHER','Going home',600,'');
INSERT INTO `items` VALUES (3,1,0,'SONG','Named like a link',0,'1 4/4\n1 quarter = 120\n5 A Verse\n9 B Reprise as Z\n13 C Chorus as A without 1, 2');
INSERT INTO `items` VALUES (4,1,0,'SONG','Pick-up',0,'pick-up 1 quarter\n1 4/4\n1 quarter = 100\n1 quarter = 120\n61 film 4:37 The crossing');
INSERT INTO `items` VALUES (5,1,0,'SONG','Fine',0,'');
INSERT INTO `items` VALUES (5,2,1,'SONG','Broken',0,'1 4/4\n1 quarter = 120\n123456 A Far away');
/*!40000 ALTER TABLE `items` ENABLE KEYS */;
UNLOCK TABLES;
DROP TABLE IF EXISTS `line_checks`;
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `line_checks` (
  `id` int(11) NOT NULL AUTO_INCREMENT,
  `show_id` int(11) NOT NULL,
  `device_id` int(11) NOT NULL,
  `epoch_millis` bigint(20) NOT NULL,
  `phrase` varchar(60) NOT NULL,
  `sent` tinyint(1) NOT NULL,
  `acknowledged` tinyint(1) NOT NULL,
  `seen` varchar(3) NOT NULL,
  `round_trip_micros` bigint(20) NOT NULL,
  `trouble` varchar(500) NOT NULL,
  PRIMARY KEY (`id`),
  KEY `line_checks_of_device` (`show_id`,`device_id`,`id`)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_ci;
/*!40101 SET character_set_client = @saved_cs_client */;

LOCK TABLES `line_checks` WRITE;
/*!40000 ALTER TABLE `line_checks` DISABLE KEYS */;
/*!40000 ALTER TABLE `line_checks` ENABLE KEYS */;
UNLOCK TABLES;
DROP TABLE IF EXISTS `phrases`;
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `phrases` (
  `show_id` int(11) NOT NULL,
  `id` int(11) NOT NULL,
  `device_id` int(11) NOT NULL,
  `place` int(11) NOT NULL,
  `name` varchar(60) NOT NULL,
  `says` varchar(8000) NOT NULL,
  `effect` varchar(80) NOT NULL,
  `guarded` tinyint(1) NOT NULL,
  `listed` tinyint(1) NOT NULL DEFAULT 0,
  `argument` varchar(60) NOT NULL DEFAULT '',
  `mark` varchar(12) NOT NULL DEFAULT 'NONE',
  `note` varchar(200) NOT NULL DEFAULT '',
  `heading` varchar(40) NOT NULL DEFAULT '',
  PRIMARY KEY (`show_id`,`id`),
  CONSTRAINT `phrases_ibfk_1` FOREIGN KEY (`show_id`) REFERENCES `shows` (`id`) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_ci;
/*!40101 SET character_set_client = @saved_cs_client */;

LOCK TABLES `phrases` WRITE;
/*!40000 ALTER TABLE `phrases` DISABLE KEYS */;
INSERT INTO `phrases` VALUES (1,2,1,0,'Blackout','note C−2','stops',0,1,'','NONE','','');
INSERT INTO `phrases` VALUES (1,3,1,1,'House open','note C♯−2','holds',0,1,'','NONE','','');
INSERT INTO `phrases` VALUES (1,4,1,2,'House half','note D−2','holds',0,1,'','NONE','','');
INSERT INTO `phrases` VALUES (1,5,1,3,'Dusk, low','note D♯−2','holds',0,1,'','NONE','','');
INSERT INTO `phrases` VALUES (1,6,1,4,'Lantern only','note E−2','holds',0,1,'','NONE','','');
INSERT INTO `phrases` VALUES (1,7,1,5,'Indigo wash','note F−2','holds',0,1,'','NONE','','');
INSERT INTO `phrases` VALUES (1,8,1,6,'Gold sweep','note F♯−2','holds',0,1,'','NONE','','');
INSERT INTO `phrases` VALUES (1,9,1,7,'Amber wash','note G−2','holds',0,1,'','NONE','','');
INSERT INTO `phrases` VALUES (1,10,1,8,'Moon on water','note G♯−2','holds',0,1,'','NONE','','');
INSERT INTO `phrases` VALUES (1,11,1,9,'River green','note A−2','holds',0,1,'','NONE','','');
INSERT INTO `phrases` VALUES (1,12,1,10,'Storm flash','note A♯−2','moment',0,1,'','NONE','','');
INSERT INTO `phrases` VALUES (1,13,1,11,'Storm low','note B−2','holds',0,1,'','NONE','','');
INSERT INTO `phrases` VALUES (1,14,1,12,'Cold dawn','note C−1','holds',0,1,'','NONE','','');
INSERT INTO `phrases` VALUES (1,15,1,13,'Red warning','note C♯−1','holds',0,1,'','NONE','','');
INSERT INTO `phrases` VALUES (1,16,1,14,'Deck white','note D−1','holds',0,1,'','NONE','','');
INSERT INTO `phrases` VALUES (1,17,1,15,'Side blue','note D♯−1','holds',0,1,'','NONE','','');
INSERT INTO `phrases` VALUES (1,18,1,16,'Speech, warm','note E−1','holds',0,1,'','NONE','','');
INSERT INTO `phrases` VALUES (1,19,1,17,'Film, 20 %','note F−1','holds',0,1,'','NONE','','');
INSERT INTO `phrases` VALUES (1,20,1,18,'Bonfire','note F♯−1','holds',0,1,'','NONE','','');
INSERT INTO `phrases` VALUES (1,21,1,19,'Meadow','note G−1','holds',0,1,'','NONE','','');
INSERT INTO `phrases` VALUES (1,22,1,20,'Violet hush','note G♯−1','holds',0,1,'','NONE','','');
INSERT INTO `phrases` VALUES (1,23,1,21,'Full and bright','note A−1','holds',0,1,'','NONE','','');
INSERT INTO `phrases` VALUES (1,24,1,22,'Candle line','note A♯−1','holds',0,1,'','NONE','','');
INSERT INTO `phrases` VALUES (1,25,1,23,'Curtain call','note B−1','holds',0,1,'','NONE','','');
INSERT INTO `phrases` VALUES (1,27,26,0,'Reel 1 black','program 0','holds',0,0,'','NONE','','');
INSERT INTO `phrases` VALUES (1,28,26,1,'Reel 2 slow river','program 1','holds',0,0,'','NONE','','');
INSERT INTO `phrases` VALUES (1,29,26,2,'Reel 3 town','program 2','holds',0,0,'','NONE','','');
INSERT INTO `phrases` VALUES (1,30,26,3,'Reel 4 lanterns','program 3','holds',0,0,'','NONE','','');
INSERT INTO `phrases` VALUES (1,31,26,4,'Reel 5 night crossing','program 4','holds',0,0,'','NONE','','');
INSERT INTO `phrases` VALUES (1,32,26,5,'Reel 6 storm','program 5','holds',0,0,'','NONE','','');
INSERT INTO `phrases` VALUES (1,33,26,6,'Reel 7 dawn','program 6','holds',0,0,'','NONE','','');
INSERT INTO `phrases` VALUES (1,34,26,7,'Reel 8 titles','program 7','holds',0,0,'','NONE','','');
INSERT INTO `phrases` VALUES (1,35,26,8,'Clip 1','note C1','starts',0,0,'','NONE','','');
INSERT INTO `phrases` VALUES (1,36,26,9,'Clip 2','note C♯1','starts',0,0,'','NONE','','');
INSERT INTO `phrases` VALUES (1,37,26,10,'Clip 3','note D1','starts',0,0,'','NONE','','');
INSERT INTO `phrases` VALUES (1,38,26,11,'Stop','note B0','stops',0,0,'','NONE','','');
INSERT INTO `phrases` VALUES (1,40,39,0,'Next','note C3','steps',0,0,'','NONE','','');
INSERT INTO `phrases` VALUES (1,41,39,1,'Previous','note B2','steps',0,0,'','NONE','','');
INSERT INTO `phrases` VALUES (1,42,39,2,'Blank','note A♯2','stops',0,0,'','NONE','','');
INSERT INTO `phrases` VALUES (1,43,39,3,'Song 1 Slipway','program 0','holds',0,0,'','NONE','','');
INSERT INTO `phrases` VALUES (1,44,39,4,'Song 2 Is anyone across?','program 1','holds',0,0,'','NONE','','');
INSERT INTO `phrases` VALUES (1,45,39,5,'Song 3 Lamps across the water','program 2','holds',0,0,'','NONE','','');
INSERT INTO `phrases` VALUES (1,46,39,6,'Song 4 Halfway','program 3','holds',0,0,'','NONE','','');
INSERT INTO `phrases` VALUES (1,47,39,7,'Song 5 The toll','program 4','holds',0,0,'','NONE','','');
INSERT INTO `phrases` VALUES (1,48,39,8,'Song 6 Cold dawn','program 5','holds',0,0,'','NONE','','');
INSERT INTO `phrases` VALUES (1,50,49,0,'1 Mara','osc /camera/program 1','holds',0,0,'','NONE','','');
INSERT INTO `phrases` VALUES (1,51,49,1,'2 wide','osc /camera/program 2','holds',0,0,'','NONE','','');
INSERT INTO `phrases` VALUES (1,52,49,2,'3 band','osc /camera/program 3','holds',0,0,'','NONE','','');
INSERT INTO `phrases` VALUES (1,53,49,3,'4 river side','osc /camera/program 4','holds',0,0,'','NONE','','');
INSERT INTO `phrases` VALUES (1,55,54,0,'Scene 1 line check','program 0','holds scene',1,0,'','NONE','','');
INSERT INTO `phrases` VALUES (1,56,54,1,'Scene 2 pre-show','program 1','holds scene',0,0,'','NONE','','');
INSERT INTO `phrases` VALUES (1,57,54,2,'Scene 8 dialogue','program 7','holds scene',0,0,'','NONE','','');
INSERT INTO `phrases` VALUES (1,58,54,3,'Scene 9 song','program 8','holds scene',0,0,'','NONE','','');
INSERT INTO `phrases` VALUES (1,59,54,4,'Scene 10 film','program 9','holds scene',0,0,'','NONE','','');
INSERT INTO `phrases` VALUES (1,60,54,5,'Scene 11 storm','program 10','holds scene',0,0,'','NONE','','');
INSERT INTO `phrases` VALUES (1,61,54,6,'Scene 12 bows','program 11','holds scene',0,0,'','NONE','','');
INSERT INTO `phrases` VALUES (1,62,54,7,'Vox 1','control 0 to ?','levels Vox 1',0,0,'decibels','NONE','','');
INSERT INTO `phrases` VALUES (1,63,54,8,'Vox 2','control 1 to ?','levels Vox 2',0,0,'decibels','NONE','','');
INSERT INTO `phrases` VALUES (1,64,54,9,'Bed','control 13 to ?','levels Bed',0,0,'decibels','NONE','','');
INSERT INTO `phrases` VALUES (1,65,54,10,'Vox 1 mute','control 0 to 127 on channel +1 | control 0 to 0 on channel +1','levels Vox 1 mute',0,0,'on or off','NONE','','');
INSERT INTO `phrases` VALUES (1,66,54,11,'Vox 2 pan','control 1 to ? on channel +2','levels Vox 2 pan',0,0,'pan','NONE','','');
INSERT INTO `phrases` VALUES (1,68,67,0,'Upright piano','program 0','holds patch',0,0,'','NONE','','');
INSERT INTO `phrases` VALUES (1,69,67,1,'Reed organ','program 1','holds patch',0,0,'','NONE','','');
INSERT INTO `phrases` VALUES (1,70,67,2,'Strings, soft','program 2','holds patch',0,0,'','NONE','','');
INSERT INTO `phrases` VALUES (1,71,67,3,'Bells','program 3','holds patch',0,0,'','NONE','','');
INSERT INTO `phrases` VALUES (1,72,67,4,'Harmonium and drone','program 4; after 20 ms control 80 to 127','holds patch',0,0,'','NONE','','');
INSERT INTO `phrases` VALUES (1,73,67,5,'Low pad','program 5','holds patch',0,0,'','NONE','','');
INSERT INTO `phrases` VALUES (1,74,67,6,'Expression','control 11 to ?','levels expression',0,0,'per cent','NONE','','');
INSERT INTO `phrases` VALUES (1,76,75,0,'Key C major','program 0','holds key',0,0,'','NONE','','');
INSERT INTO `phrases` VALUES (1,77,75,1,'Key E♭ major','program 3','holds key',0,0,'','NONE','','');
INSERT INTO `phrases` VALUES (1,78,75,2,'Key F major','program 5','holds key',0,0,'','NONE','','');
INSERT INTO `phrases` VALUES (1,79,75,3,'Key A minor','program 21','holds key',0,0,'','NONE','','');
INSERT INTO `phrases` VALUES (1,80,75,4,'Key D minor','program 14','holds key',0,0,'','NONE','','');
INSERT INTO `phrases` VALUES (1,82,81,0,'Next song','note C2','steps song by +1',0,0,'','NONE','','');
INSERT INTO `phrases` VALUES (1,83,81,1,'Previous song','note B1','steps song by −1',0,0,'','NONE','','');
INSERT INTO `phrases` VALUES (1,84,81,2,'Scroll on or off','note D2','moment',0,0,'','NONE','','');
INSERT INTO `phrases` VALUES (1,86,85,0,'Ship’s bell','note C1','moment',0,0,'','NONE','','');
INSERT INTO `phrases` VALUES (1,87,85,1,'Thunder near','note C♯1','moment',0,0,'','NONE','','');
INSERT INTO `phrases` VALUES (1,88,85,2,'Oar stroke','note D1','moment',0,0,'','NONE','','');
INSERT INTO `phrases` VALUES (1,89,85,3,'River bed','note C2 for 30000 ms','starts loop for 0:30',0,0,'','NONE','','');
INSERT INTO `phrases` VALUES (1,90,85,4,'Rain on the roof','note C♯2','starts loop',0,0,'','NONE','','');
INSERT INTO `phrases` VALUES (1,91,85,5,'Rain out','note off C♯2','stops loop',0,0,'','NONE','','');
INSERT INTO `phrases` VALUES (1,92,85,6,'Player level','control 7 to ?','levels player',0,0,'decibels','NONE','','');
INSERT INTO `phrases` VALUES (2,2,1,0,'All dark','note C−2','stops',0,0,'','NONE','','');
INSERT INTO `phrases` VALUES (2,3,1,1,'Meadow, day','note G−1','holds',0,0,'','NONE','','');
INSERT INTO `phrases` VALUES (2,4,1,2,'Speech, warm','note E−1','holds',0,0,'','NONE','','');
INSERT INTO `phrases` VALUES (2,5,1,3,'Dusk, low','note D♯−2','holds',0,0,'','NONE','','');
INSERT INTO `phrases` VALUES (2,6,1,4,'Indigo wash','note F−2','holds',0,0,'','NONE','','');
INSERT INTO `phrases` VALUES (2,7,1,5,'Amber wash','note G−2','holds',0,0,'','NONE','','');
INSERT INTO `phrases` VALUES (2,8,1,6,'Violet hush','note G♯−1','holds',0,0,'','NONE','','');
INSERT INTO `phrases` VALUES (2,9,1,7,'Bonfire','note F♯−1','holds',0,0,'','NONE','','');
INSERT INTO `phrases` VALUES (2,10,1,8,'Candle line','note A♯−1','holds',0,0,'','NONE','','');
INSERT INTO `phrases` VALUES (2,11,1,9,'Full and bright','note A−1','holds',0,0,'','NONE','','');
INSERT INTO `phrases` VALUES (2,12,1,10,'Moon on field','note G♯−2','holds',0,0,'','NONE','','');
INSERT INTO `phrases` VALUES (2,14,13,0,'Reel 1 black','program 0','holds',0,0,'','NONE','','');
INSERT INTO `phrases` VALUES (2,15,13,1,'Reel 8 titles','program 7','holds',0,0,'','NONE','','');
INSERT INTO `phrases` VALUES (2,16,13,2,'Reel 9 meadow loop','program 8','holds',0,0,'','NONE','','');
INSERT INTO `phrases` VALUES (2,17,13,3,'Reel 10 candles','program 9','holds',0,0,'','NONE','','');
INSERT INTO `phrases` VALUES (2,18,13,4,'Clip 1','note C1','starts',0,0,'','NONE','','');
INSERT INTO `phrases` VALUES (2,19,13,5,'Clip 2','note C♯1','starts',0,0,'','NONE','','');
INSERT INTO `phrases` VALUES (2,20,13,6,'Stop','note B0','stops',0,0,'','NONE','','');
INSERT INTO `phrases` VALUES (2,22,21,0,'Next','note C3','steps',0,0,'','NONE','','');
INSERT INTO `phrases` VALUES (2,23,21,1,'Previous','note B2','steps',0,0,'','NONE','','');
INSERT INTO `phrases` VALUES (2,24,21,2,'Blank','note A♯2','stops',0,0,'','NONE','','');
INSERT INTO `phrases` VALUES (2,25,21,3,'Song 7 Evening comes softly','program 6','holds',0,0,'','NONE','','');
INSERT INTO `phrases` VALUES (2,26,21,4,'Song 8 We keep the fire','program 7','holds',0,0,'','NONE','','');
INSERT INTO `phrases` VALUES (2,27,21,5,'Song 9 Field of lanterns','program 8','holds',0,0,'','NONE','','');
INSERT INTO `phrases` VALUES (2,28,21,6,'Song 10 Go gently','program 9','holds',0,0,'','NONE','','');
INSERT INTO `phrases` VALUES (2,30,29,0,'1 leader','osc /camera/program 1','holds',0,0,'','NONE','','');
INSERT INTO `phrases` VALUES (2,31,29,1,'2 field','osc /camera/program 2','holds',0,0,'','NONE','','');
INSERT INTO `phrases` VALUES (2,32,29,2,'3 band','osc /camera/program 3','holds',0,0,'','NONE','','');
INSERT INTO `phrases` VALUES (2,34,33,0,'Scene 1 welcome','program 0','holds',0,0,'','NONE','','');
INSERT INTO `phrases` VALUES (2,35,33,1,'Scene 2 songs','program 1','holds',0,0,'','NONE','','');
INSERT INTO `phrases` VALUES (2,36,33,2,'Scene 3 reading','program 2','holds',0,0,'','NONE','','');
INSERT INTO `phrases` VALUES (2,37,33,3,'Scene 4 talk','program 3','holds',0,0,'','NONE','','');
INSERT INTO `phrases` VALUES (2,38,33,4,'Scene 5 stillness','program 4','holds',0,0,'','NONE','','');
INSERT INTO `phrases` VALUES (2,39,33,5,'Pad under','control 13 to 40','levels',0,0,'','NONE','','');
INSERT INTO `phrases` VALUES (2,40,33,6,'Pad up','control 13 to 80','levels',0,0,'','NONE','','');
INSERT INTO `phrases` VALUES (2,41,33,7,'Pad out','control 13 to 0','levels',0,0,'','NONE','','');
INSERT INTO `phrases` VALUES (2,42,33,8,'Reader open','control 2 to 0 on channel +1','levels',0,0,'','NONE','','');
INSERT INTO `phrases` VALUES (2,43,33,9,'Reader mute','control 2 to 127 on channel +1','levels',0,0,'','NONE','','');
INSERT INTO `phrases` VALUES (2,44,33,10,'Leader up','control 0 to 104','levels',0,0,'','NONE','','');
INSERT INTO `phrases` VALUES (4,3,2,0,'Title','osc /title ?','holds',0,0,'text','NONE','','');
INSERT INTO `phrases` VALUES (4,4,2,1,'Level','osc /level ?','levels',0,0,'decibels −40 to 0','NONE','','');
/*!40000 ALTER TABLE `phrases` ENABLE KEYS */;
UNLOCK TABLES;
DROP TABLE IF EXISTS `settings`;
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `settings` (
  `name` varchar(40) NOT NULL,
  `value` varchar(2000) NOT NULL,
  PRIMARY KEY (`name`)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_ci;
/*!40101 SET character_set_client = @saved_cs_client */;

LOCK TABLES `settings` WRITE;
/*!40000 ALTER TABLE `settings` DISABLE KEYS */;
/*!40000 ALTER TABLE `settings` ENABLE KEYS */;
UNLOCK TABLES;
DROP TABLE IF EXISTS `shows`;
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `shows` (
  `id` int(11) NOT NULL,
  `name` varchar(100) NOT NULL,
  `revision` int(11) NOT NULL,
  `next_id` int(11) NOT NULL,
  PRIMARY KEY (`id`)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_ci;
/*!40101 SET character_set_client = @saved_cs_client */;

LOCK TABLES `shows` WRITE;
/*!40000 ALTER TABLE `shows` DISABLE KEYS */;
INSERT INTO `shows` VALUES (1,'The Ferryman’s Lantern',156,156);
INSERT INTO `shows` VALUES (2,'Midsummer Vigil',102,102);
INSERT INTO `shows` VALUES (3,'Reprise as Z',4,9);
INSERT INTO `shows` VALUES (4,'Slow – “quoted”; a + b',4,9);
INSERT INTO `shows` VALUES (5,'Beyond repair',4,9);
/*!40000 ALTER TABLE `shows` ENABLE KEYS */;
UNLOCK TABLES;
DROP TABLE IF EXISTS `snippets`;
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `snippets` (
  `id` int(11) NOT NULL AUTO_INCREMENT,
  `name` varchar(60) NOT NULL,
  `meter` varchar(10) NOT NULL,
  `content` mediumtext NOT NULL,
  PRIMARY KEY (`id`),
  UNIQUE KEY `name` (`name`)
) ENGINE=InnoDB AUTO_INCREMENT=2 DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_ci;
/*!40101 SET character_set_client = @saved_cs_client */;

LOCK TABLES `snippets` WRITE;
/*!40000 ALTER TABLE `snippets` DISABLE KEYS */;
INSERT INTO `snippets` VALUES (1,'Kept; with “quotes”','4/4','item,cue,starts,what,mark,note,LX FOH lights\r\nPick-up,1,at 1:1,Oars,,,Amber wash\r\n');
/*!40000 ALTER TABLE `snippets` ENABLE KEYS */;
UNLOCK TABLES;
DROP TABLE IF EXISTS `traffic`;
/*!40101 SET @saved_cs_client     = @@character_set_client */;
/*!40101 SET character_set_client = utf8mb4 */;
CREATE TABLE `traffic` (
  `number` bigint(20) NOT NULL,
  `epoch_micros` bigint(20) NOT NULL,
  `direction` varchar(3) NOT NULL,
  `show_id` int(11) NOT NULL,
  `device_id` int(11) NOT NULL,
  `device` varchar(60) NOT NULL,
  `bytes` mediumblob NOT NULL,
  `meaning` varchar(8000) NOT NULL,
  `cause` varchar(200) NOT NULL,
  `late_micros` bigint(20) NOT NULL,
  `trouble` varchar(500) NOT NULL,
  PRIMARY KEY (`number`),
  KEY `traffic_of_show` (`show_id`,`number`)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_ci;
/*!40101 SET character_set_client = @saved_cs_client */;

LOCK TABLES `traffic` WRITE;
/*!40000 ALTER TABLE `traffic` DISABLE KEYS */;
/*!40000 ALTER TABLE `traffic` ENABLE KEYS */;
UNLOCK TABLES;
/*!40103 SET TIME_ZONE=@OLD_TIME_ZONE */;

/*!40101 SET SQL_MODE=@OLD_SQL_MODE */;
/*!40014 SET FOREIGN_KEY_CHECKS=@OLD_FOREIGN_KEY_CHECKS */;
/*!40014 SET UNIQUE_CHECKS=@OLD_UNIQUE_CHECKS */;
/*!40101 SET CHARACTER_SET_CLIENT=@OLD_CHARACTER_SET_CLIENT */;
/*!40101 SET CHARACTER_SET_RESULTS=@OLD_CHARACTER_SET_RESULTS */;
/*!40101 SET COLLATION_CONNECTION=@OLD_COLLATION_CONNECTION */;
/*!40111 SET SQL_NOTES=@OLD_SQL_NOTES */;

