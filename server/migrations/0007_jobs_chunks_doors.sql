CREATE TABLE IF NOT EXISTS `passkey_challenges` (
	`id` varchar(36) NOT NULL,
	`teacher_id` varchar(36),
	`challenge` varchar(200) NOT NULL,
	`expires_at` bigint NOT NULL,
	CONSTRAINT `passkey_challenges_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE IF NOT EXISTS `passkeys` (
	`id` varchar(64) NOT NULL,
	`teacher_id` varchar(36) NOT NULL,
	`credential_id` text NOT NULL,
	`public_key` text NOT NULL,
	`counter` bigint NOT NULL,
	`transports` longtext,
	`name` varchar(60) NOT NULL,
	`created_at` bigint NOT NULL,
	CONSTRAINT `passkeys_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE IF NOT EXISTS `password_resets` (
	`teacher_id` varchar(36) NOT NULL,
	`code_hash` varchar(64) NOT NULL,
	`expires_at` bigint NOT NULL,
	CONSTRAINT `password_resets_teacher_id` PRIMARY KEY(`teacher_id`)
);
--> statement-breakpoint
CREATE TABLE IF NOT EXISTS `recording_chunks` (
	`upload_id` varchar(36) NOT NULL,
	`take_id` varchar(36) NOT NULL,
	`number` int NOT NULL,
	`sound` mediumblob NOT NULL,
	`arrived_at` bigint NOT NULL,
	CONSTRAINT `recording_chunks_upload_id_number_pk` PRIMARY KEY(`upload_id`,`number`)
);
--> statement-breakpoint
CREATE TABLE IF NOT EXISTS `rejudgings` (
	`class_id` varchar(36) NOT NULL,
	`revision` int NOT NULL,
	`taken_at` bigint NOT NULL,
	`take_id` varchar(36) NOT NULL,
	`done` int NOT NULL,
	`total` int NOT NULL,
	`owner` varchar(36) NOT NULL,
	`leased_until` bigint NOT NULL,
	CONSTRAINT `rejudgings_class_id` PRIMARY KEY(`class_id`)
);
--> statement-breakpoint
CREATE TABLE IF NOT EXISTS `sign_in_tries` (
	`key` varchar(255) NOT NULL,
	`points` int NOT NULL DEFAULT 0,
	`expire` bigint unsigned,
	CONSTRAINT `sign_in_tries_key` PRIMARY KEY(`key`)
);
--> statement-breakpoint
ALTER TABLE `classes` MODIFY COLUMN `revision` varchar(32) NOT NULL DEFAULT '';--> statement-breakpoint
ALTER TABLE `patterns` MODIFY COLUMN `text` mediumtext NOT NULL;--> statement-breakpoint
ALTER TABLE `takes` MODIFY COLUMN `pattern_text` mediumtext NOT NULL;--> statement-breakpoint
ALTER TABLE `classes` ADD COLUMN IF NOT EXISTS `judging_revision` int DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE `recordings` ADD COLUMN IF NOT EXISTS `upload_id` varchar(36) NOT NULL;--> statement-breakpoint
ALTER TABLE `recordings` ADD COLUMN IF NOT EXISTS `bytes` int NOT NULL;--> statement-breakpoint
ALTER TABLE `takes` ADD COLUMN IF NOT EXISTS `class_id` varchar(36) NOT NULL;--> statement-breakpoint
ALTER TABLE `passkey_challenges` ADD CONSTRAINT `passkey_challenges_teacher_id_teachers_id_fk` FOREIGN KEY IF NOT EXISTS `passkey_challenges_teacher_id_teachers_id_fk` (`teacher_id`) REFERENCES `teachers`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `passkeys` ADD CONSTRAINT `passkeys_teacher_id_teachers_id_fk` FOREIGN KEY IF NOT EXISTS `passkeys_teacher_id_teachers_id_fk` (`teacher_id`) REFERENCES `teachers`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `password_resets` ADD CONSTRAINT `password_resets_teacher_id_teachers_id_fk` FOREIGN KEY IF NOT EXISTS `password_resets_teacher_id_teachers_id_fk` (`teacher_id`) REFERENCES `teachers`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `recording_chunks` ADD CONSTRAINT `recording_chunks_take_id_takes_id_fk` FOREIGN KEY IF NOT EXISTS `recording_chunks_take_id_takes_id_fk` (`take_id`) REFERENCES `takes`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `rejudgings` ADD CONSTRAINT `rejudgings_class_id_classes_id_fk` FOREIGN KEY IF NOT EXISTS `rejudgings_class_id_classes_id_fk` (`class_id`) REFERENCES `classes`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
INSERT IGNORE INTO `recording_chunks` (`upload_id`, `take_id`, `number`, `sound`, `arrived_at`) SELECT `take_id`, `take_id`, 0, `sound`, 0 FROM `recordings` WHERE `upload_id` = '';--> statement-breakpoint
UPDATE `recordings` SET `upload_id` = `take_id`, `bytes` = LENGTH(`sound`) WHERE `upload_id` = '';--> statement-breakpoint
UPDATE `takes` JOIN `children` ON `children`.`id` = `takes`.`child_id` SET `takes`.`class_id` = `children`.`class_id` WHERE `takes`.`class_id` = '';--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `passkeys_teacher` ON `passkeys` (`teacher_id`);--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `recording_chunks_arrival` ON `recording_chunks` (`arrived_at`);--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `recordings_upload` ON `recordings` (`upload_id`);--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `sessions_teacher` ON `sessions` (`teacher_id`);--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `takes_class` ON `takes` (`class_id`,`taken_at`);