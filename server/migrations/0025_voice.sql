CREATE TABLE IF NOT EXISTS `voice_words` (
	`teacher_id` varchar(36) NOT NULL,
	`word` varchar(40) character set utf8mb4 collate utf8mb4_nopad_bin NOT NULL,
	`vowel` double NOT NULL,
	`sound` mediumblob NOT NULL,
	CONSTRAINT `voice_words_teacher_id_word_pk` PRIMARY KEY(`teacher_id`,`word`),
	CONSTRAINT `voice_words_teacher_id_teachers_id_fk` FOREIGN KEY (`teacher_id`) REFERENCES `teachers`(`id`) ON DELETE cascade ON UPDATE no action
);
--> statement-breakpoint
ALTER TABLE `teachers` ADD COLUMN IF NOT EXISTS `own_voice` boolean NOT NULL DEFAULT true;
