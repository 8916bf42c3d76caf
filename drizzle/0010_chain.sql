CREATE TABLE `bay_floors` (
	`bay` text PRIMARY KEY NOT NULL,
	`doc` text NOT NULL,
	`personId` text NOT NULL
);
--> statement-breakpoint
CREATE TABLE `draft_writers` (
	`draftKey` text NOT NULL,
	`personId` text NOT NULL,
	PRIMARY KEY(`draftKey`, `personId`),
	FOREIGN KEY (`personId`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `job_documents` (
	`jobId` text NOT NULL,
	`kind` text NOT NULL,
	`version` integer NOT NULL,
	`sha256` text NOT NULL,
	`bytes` blob,
	`program` text NOT NULL,
	`madeAt` text NOT NULL,
	PRIMARY KEY(`jobId`, `kind`, `version`),
	FOREIGN KEY (`jobId`) REFERENCES `jobs`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `known_devices` (
	`deviceHash` text NOT NULL,
	`personId` text NOT NULL,
	`knownSince` text NOT NULL,
	`failures` integer DEFAULT 0 NOT NULL,
	`lockedUntil` text,
	PRIMARY KEY(`deviceHash`, `personId`),
	FOREIGN KEY (`personId`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `rule_books` (
	`version` integer PRIMARY KEY NOT NULL,
	`doc` text NOT NULL,
	`madeAt` text NOT NULL,
	`personId` text
);
--> statement-breakpoint
CREATE TABLE `shop_events` (
	`seq` integer PRIMARY KEY NOT NULL,
	`id` text NOT NULL,
	`version` integer NOT NULL,
	`at` text NOT NULL,
	`personId` text NOT NULL,
	`author` text,
	`authorSalt` text,
	`authorDigest` text NOT NULL,
	`body` text NOT NULL,
	`personal` text,
	`personalSalt` text,
	`personalDigest` text,
	`hash` text NOT NULL
);
--> statement-breakpoint
CREATE UNIQUE INDEX `shop_events_id_unique` ON `shop_events` (`id`);--> statement-breakpoint
CREATE TABLE `strange_tries` (
	`personId` text NOT NULL,
	`day` text NOT NULL,
	`failures` integer NOT NULL,
	PRIMARY KEY(`personId`, `day`)
);
--> statement-breakpoint
PRAGMA foreign_keys=OFF;--> statement-breakpoint
CREATE TABLE `__new_job_events` (
	`jobId` text NOT NULL,
	`seq` integer NOT NULL,
	`id` text NOT NULL,
	`version` integer NOT NULL,
	`at` text NOT NULL,
	`receivedAt` text,
	`clockBehindS` integer,
	`personId` text NOT NULL,
	`author` text,
	`authorSalt` text,
	`authorDigest` text NOT NULL,
	`seen` integer,
	`body` text NOT NULL,
	`personal` text,
	`personalSalt` text,
	`personalDigest` text,
	`sent` text,
	`hash` text NOT NULL,
	PRIMARY KEY(`jobId`, `seq`),
	FOREIGN KEY (`jobId`) REFERENCES `jobs`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`personId`) REFERENCES `people`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
INSERT INTO `__new_job_events`("jobId", "seq", "id", "version", "at", "personId", "authorDigest", "body", "hash") SELECT "jobId", "seq", "id", 1, "at", "personId", '', "body", '' FROM `job_events`;--> statement-breakpoint
DROP TABLE `job_events`;--> statement-breakpoint
ALTER TABLE `__new_job_events` RENAME TO `job_events`;--> statement-breakpoint
PRAGMA foreign_keys=ON;--> statement-breakpoint
CREATE UNIQUE INDEX `job_events_id` ON `job_events` (`jobId`,`id`);--> statement-breakpoint
ALTER TABLE `sheet_drafts` ADD `revision` integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE `jobs` ADD `vin` text DEFAULT '' NOT NULL;--> statement-breakpoint
CREATE INDEX `jobs_vin` ON `jobs` (`vin`);--> statement-breakpoint
CREATE INDEX `jobs_updated` ON `jobs` (`updatedAt`);--> statement-breakpoint
UPDATE `jobs` SET `vin` = coalesce(json_extract(`ground`, '$.intake.vin'), '');--> statement-breakpoint
INSERT INTO `rule_books` (`version`, `doc`, `madeAt`, `personId`) SELECT 1, `value`, strftime('%Y-%m-%dT%H:%M:%fZ', 'now'), NULL FROM `settings` WHERE `key` = 'owed.rules';--> statement-breakpoint
DELETE FROM `settings` WHERE `key` = 'owed.rules';--> statement-breakpoint
INSERT INTO `draft_writers` (`draftKey`, `personId`) SELECT `key`, `editedBy` FROM `sheet_drafts`;--> statement-breakpoint
CREATE VIRTUAL TABLE `job_search` USING fts5(`jobId` UNINDEXED, `words`, tokenize = 'unicode61 remove_diacritics 2');
