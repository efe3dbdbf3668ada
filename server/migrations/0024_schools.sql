CREATE TABLE IF NOT EXISTS `cleared` (
	`school_id` varchar(36) NOT NULL,
	`night` varchar(10) NOT NULL,
	`kind` varchar(12) NOT NULL,
	`removed` int NOT NULL,
	CONSTRAINT `cleared_school_id_night_kind_pk` PRIMARY KEY(`school_id`,`night`,`kind`)
);
--> statement-breakpoint
CREATE TABLE IF NOT EXISTS `identities` (
	`identity_key` varchar(64) NOT NULL,
	`teacher_id` varchar(36) NOT NULL,
	`since` bigint NOT NULL,
	CONSTRAINT `identities_identity_key` PRIMARY KEY(`identity_key`)
);
--> statement-breakpoint
CREATE TABLE IF NOT EXISTS `invitations` (
	`id` varchar(36) NOT NULL,
	`school_id` varchar(36) NOT NULL,
	`code_hash` varchar(64) NOT NULL,
	`administrator` boolean NOT NULL,
	`uses_left` int NOT NULL,
	`made_at` bigint NOT NULL,
	`expires_at` bigint NOT NULL,
	CONSTRAINT `invitations_id` PRIMARY KEY(`id`),
	CONSTRAINT `invitations_code` UNIQUE(`code_hash`)
);
--> statement-breakpoint
CREATE TABLE IF NOT EXISTS `members` (
	`school_id` varchar(36) NOT NULL,
	`teacher_id` varchar(36) NOT NULL,
	`name` varchar(60) NOT NULL,
	`administrator` boolean NOT NULL DEFAULT false,
	`closed` boolean NOT NULL DEFAULT false,
	`since` bigint NOT NULL,
	CONSTRAINT `members_school_id_teacher_id_pk` PRIMARY KEY(`school_id`,`teacher_id`),
	CONSTRAINT `members_name` UNIQUE(`school_id`,`name`)
);
--> statement-breakpoint
CREATE TABLE IF NOT EXISTS `schools` (
	`id` varchar(36) NOT NULL,
	`name` varchar(80) NOT NULL,
	`zone` varchar(60) NOT NULL DEFAULT 'UTC',
	`language` varchar(5),
	`retention` longtext NOT NULL,
	`retention_from` bigint NOT NULL DEFAULT 0,
	`created_at` bigint NOT NULL,
	`cleared_night` varchar(10) NOT NULL DEFAULT '',
	CONSTRAINT `schools_id` PRIMARY KEY(`id`),
	CONSTRAINT `schools_name` UNIQUE(`name`)
);
--> statement-breakpoint
CREATE TABLE IF NOT EXISTS `shelf_items` (
	`id` varchar(36) NOT NULL,
	`school_id` varchar(36) NOT NULL,
	`teacher_id` varchar(36),
	`title` varchar(60) NOT NULL,
	`about` varchar(200) NOT NULL DEFAULT '',
	`made_by` varchar(160) NOT NULL,
	`thing` longtext NOT NULL,
	`put_at` bigint NOT NULL,
	CONSTRAINT `shelf_items_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE IF NOT EXISTS `sign_ons` (
	`state_hash` varchar(64) NOT NULL,
	`browser_hash` varchar(64) NOT NULL,
	`nonce` varchar(100) NOT NULL,
	`verifier` varchar(200) NOT NULL,
	`teacher_id` varchar(36),
	`identity_key` varchar(64),
	`expires_at` bigint NOT NULL,
	CONSTRAINT `sign_ons_state_hash` PRIMARY KEY(`state_hash`)
);
--> statement-breakpoint
-- contract: a server of before looks names up all the same, and has one school
ALTER TABLE `teachers` DROP INDEX IF EXISTS `teachers_name`;--> statement-breakpoint
ALTER TABLE `children` ADD COLUMN IF NOT EXISTS `held` varchar(120);--> statement-breakpoint
ALTER TABLE `classes` ADD COLUMN IF NOT EXISTS `school_id` varchar(36) DEFAULT '00000000-0000-4000-8000-000000000001' NOT NULL;--> statement-breakpoint
ALTER TABLE `classes` ADD COLUMN IF NOT EXISTS `held` varchar(120);--> statement-breakpoint
ALTER TABLE `cleared` ADD FOREIGN KEY IF NOT EXISTS `cleared_school_id_schools_id_fk` (`school_id`) REFERENCES `schools`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `identities` ADD FOREIGN KEY IF NOT EXISTS `identities_teacher_id_teachers_id_fk` (`teacher_id`) REFERENCES `teachers`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `invitations` ADD FOREIGN KEY IF NOT EXISTS `invitations_school_id_schools_id_fk` (`school_id`) REFERENCES `schools`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `members` ADD FOREIGN KEY IF NOT EXISTS `members_school_id_schools_id_fk` (`school_id`) REFERENCES `schools`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `members` ADD FOREIGN KEY IF NOT EXISTS `members_teacher_id_teachers_id_fk` (`teacher_id`) REFERENCES `teachers`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `shelf_items` ADD FOREIGN KEY IF NOT EXISTS `shelf_items_school_id_schools_id_fk` (`school_id`) REFERENCES `schools`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `shelf_items` ADD FOREIGN KEY IF NOT EXISTS `shelf_items_teacher_id_teachers_id_fk` (`teacher_id`) REFERENCES `teachers`(`id`) ON DELETE set null ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `sign_ons` ADD FOREIGN KEY IF NOT EXISTS `sign_ons_teacher_id_teachers_id_fk` (`teacher_id`) REFERENCES `teachers`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `identities_teacher` ON `identities` (`teacher_id`);--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `invitations_school` ON `invitations` (`school_id`);--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `members_teacher` ON `members` (`teacher_id`);--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `members_named` ON `members` (`name`);--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `shelf_items_school` ON `shelf_items` (`school_id`,`put_at`);--> statement-breakpoint
-- What is there is of one school. A server of before still reads `administrator` and `closed` of teachers: they stay.
INSERT IGNORE INTO `schools` (`id`, `name`, `retention`, `created_at`)
	VALUES ('00000000-0000-4000-8000-000000000001', 'Our school', '{"takes":null,"recordings":null,"terms":null,"left":null}', unix_timestamp() * 1000);--> statement-breakpoint
INSERT IGNORE INTO `members` (`school_id`, `teacher_id`, `name`, `administrator`, `closed`, `since`)
	SELECT '00000000-0000-4000-8000-000000000001', `id`, `name`, `administrator`, `closed`, unix_timestamp(`created_at`) * 1000 FROM `teachers`;--> statement-breakpoint
ALTER TABLE `classes` ADD FOREIGN KEY IF NOT EXISTS `classes_school_id_schools_id_fk` (`school_id`) REFERENCES `schools`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `teachers_named` ON `teachers` (`name`);
--> statement-breakpoint
ALTER TABLE `patterns` ADD COLUMN IF NOT EXISTS `made_by` varchar(160);
