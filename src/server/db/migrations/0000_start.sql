CREATE TABLE `consents` (
	`id` text PRIMARY KEY NOT NULL,
	`kind` text NOT NULL,
	`documents` text NOT NULL,
	`body` text,
	`draft` text,
	`reason` text NOT NULL,
	`state` text NOT NULL,
	`asked_by` text NOT NULL,
	`asked_at` integer NOT NULL,
	`answered_by` text,
	`answered_at` integer,
	FOREIGN KEY (`asked_by`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`answered_by`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `consents_state` ON `consents` (`state`,`asked_at`);--> statement-breakpoint
CREATE TABLE `grants` (
	`id` text PRIMARY KEY NOT NULL,
	`dispatch_id` text NOT NULL,
	`document_id` text NOT NULL,
	`recipient_id` text NOT NULL,
	`rights` text NOT NULL,
	`from_at` integer,
	`until_at` integer,
	`prints` integer,
	`prints_made` integer DEFAULT 0 NOT NULL,
	`conditions` text,
	`terms_id` text,
	`passed_on_by` text,
	`parent_id` text,
	`follows` integer DEFAULT false NOT NULL,
	`left_at` integer,
	`revoked_at` integer,
	`revoked_by` text,
	`revision` integer DEFAULT 1 NOT NULL,
	`given_by` text NOT NULL,
	`given_at` integer NOT NULL,
	`seal` blob,
	FOREIGN KEY (`dispatch_id`) REFERENCES `dispatches`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`document_id`) REFERENCES `documents`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`recipient_id`) REFERENCES `recipients`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`given_by`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `grants_once` ON `grants` (`dispatch_id`,`document_id`,`recipient_id`);--> statement-breakpoint
CREATE INDEX `grants_document` ON `grants` (`document_id`,`recipient_id`);--> statement-breakpoint
CREATE INDEX `grants_recipient` ON `grants` (`recipient_id`);--> statement-breakpoint
CREATE INDEX `grants_parent` ON `grants` (`parent_id`) WHERE parent_id IS NOT NULL;--> statement-breakpoint
CREATE INDEX `grants_terms` ON `grants` (`terms_id`) WHERE terms_id IS NOT NULL;--> statement-breakpoint
CREATE TABLE `links` (
	`id` text PRIMARY KEY NOT NULL,
	`token` text NOT NULL,
	`dispatch_id` text NOT NULL,
	`recipient_id` text,
	`created_at` integer NOT NULL,
	`off_at` integer,
	`seal` blob,
	FOREIGN KEY (`dispatch_id`) REFERENCES `dispatches`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`recipient_id`) REFERENCES `recipients`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `links_token_unique` ON `links` (`token`);--> statement-breakpoint
CREATE TABLE `requests` (
	`id` text PRIMARY KEY NOT NULL,
	`grant_id` text NOT NULL,
	`recipient_id` text NOT NULL,
	`right` text,
	`until` integer,
	`met` text,
	`reason` text NOT NULL,
	`state` text NOT NULL,
	`turns` text DEFAULT '[]' NOT NULL,
	`answer` text DEFAULT '' NOT NULL,
	`answered_by` text,
	`answered_at` integer,
	`asked_at` integer NOT NULL,
	FOREIGN KEY (`grant_id`) REFERENCES `grants`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`recipient_id`) REFERENCES `recipients`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`answered_by`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `requests_state` ON `requests` (`state`,`asked_at`);--> statement-breakpoint
CREATE INDEX `requests_grant` ON `requests` (`grant_id`);--> statement-breakpoint
CREATE TABLE `dispatches` (
	`id` text PRIMARY KEY NOT NULL,
	`reference` text NOT NULL,
	`subject` text NOT NULL,
	`note` text NOT NULL,
	`note_in_mail` integer DEFAULT true NOT NULL,
	`watermark` text NOT NULL,
	`delivery` text DEFAULT 'mail' NOT NULL,
	`form` text DEFAULT 'link' NOT NULL,
	`title_on_cover` integer DEFAULT false NOT NULL,
	`reason` text DEFAULT '' NOT NULL,
	`sent_by` text NOT NULL,
	`sent_at` integer NOT NULL,
	`seal` blob,
	FOREIGN KEY (`sent_by`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `dispatches_reference_unique` ON `dispatches` (`reference`);--> statement-breakpoint
CREATE TABLE `drafts` (
	`id` text PRIMARY KEY NOT NULL,
	`staff_id` text NOT NULL,
	`body` text NOT NULL,
	`revision` integer DEFAULT 1 NOT NULL,
	`updated_at` integer NOT NULL,
	FOREIGN KEY (`staff_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `drafts_staff` ON `drafts` (`staff_id`,`updated_at`);--> statement-breakpoint
CREATE TABLE `held_dispatches` (
	`id` text PRIMARY KEY NOT NULL,
	`staff_id` text NOT NULL,
	`body` text NOT NULL,
	`draft` text,
	`leaves_at` integer NOT NULL,
	`consent_id` text,
	`state` text DEFAULT 'held' NOT NULL,
	`problem` text,
	`created_at` integer NOT NULL,
	`seal` blob,
	FOREIGN KEY (`staff_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `held_state` ON `held_dispatches` (`state`,`leaves_at`);--> statement-breakpoint
CREATE TABLE `saved_terms` (
	`id` text PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`body` text NOT NULL,
	`version` integer DEFAULT 1 NOT NULL,
	`changed_by` text NOT NULL,
	`changed_at` integer NOT NULL,
	FOREIGN KEY (`changed_by`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `saved_terms_name_unique` ON `saved_terms` (`name`);--> statement-breakpoint
CREATE TABLE `saved_texts` (
	`id` text PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`subject` text NOT NULL,
	`note` text NOT NULL,
	`changed_by` text NOT NULL,
	`changed_at` integer NOT NULL,
	FOREIGN KEY (`changed_by`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `saved_texts_name_unique` ON `saved_texts` (`name`);--> statement-breakpoint
CREATE TABLE `documents` (
	`id` text PRIMARY KEY NOT NULL,
	`reference` text NOT NULL,
	`title` text NOT NULL,
	`owner_id` text NOT NULL,
	`deputy_id` text,
	`folder_id` text,
	`marking_id` text,
	`attributes` text DEFAULT '{}' NOT NULL,
	`version_id` text NOT NULL,
	`recoverable` integer DEFAULT true NOT NULL,
	`comments_seen_by` text DEFAULT 'makers' NOT NULL,
	`days_at_most` integer,
	`revoked_at` integer,
	`revoked_by` text,
	`created_at` integer NOT NULL,
	`seal` blob,
	FOREIGN KEY (`owner_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`deputy_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`folder_id`) REFERENCES `folders`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`marking_id`) REFERENCES `markings`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `documents_reference_unique` ON `documents` (`reference`);--> statement-breakpoint
CREATE INDEX `documents_created` ON `documents` (`created_at`,`id`);--> statement-breakpoint
CREATE INDEX `documents_folder` ON `documents` (`folder_id`);--> statement-breakpoint
CREATE TABLE `folders` (
	`id` text PRIMARY KEY NOT NULL,
	`parent_id` text,
	`name` text NOT NULL,
	`marking_id` text,
	`created_by` text,
	`created_at` integer NOT NULL,
	`seal` blob,
	FOREIGN KEY (`marking_id`) REFERENCES `markings`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`parent_id`) REFERENCES `folders`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `folders_parent` ON `folders` (`parent_id`);--> statement-breakpoint
CREATE TABLE `markings` (
	`id` text PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`meaning` text NOT NULL,
	`hides_titles` integer DEFAULT false NOT NULL,
	`mail_words` text DEFAULT '' NOT NULL,
	`position` integer NOT NULL,
	`seal` blob
);
--> statement-breakpoint
CREATE UNIQUE INDEX `markings_name_unique` ON `markings` (`name`);--> statement-breakpoint
CREATE TABLE `uploads` (
	`id` text PRIMARY KEY NOT NULL,
	`version_id` text NOT NULL,
	`staff_id` text NOT NULL,
	`is_local` integer DEFAULT false NOT NULL,
	`document_id` text,
	`file_name` text NOT NULL,
	`media_type` text,
	`declared_bytes` integer NOT NULL,
	`received_bytes` integer NOT NULL,
	`pages_bytes` integer,
	`blob_key` text NOT NULL,
	`header_bytes` integer NOT NULL,
	`wrapped_key` blob NOT NULL,
	`key_generation` integer NOT NULL,
	`recovery_key` text,
	`sealing_from` integer,
	`sealing_mac` text,
	`content_mac` text DEFAULT '' NOT NULL,
	`created_at` integer NOT NULL,
	`updated_at` integer NOT NULL,
	FOREIGN KEY (`staff_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`document_id`) REFERENCES `documents`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `versions` (
	`id` text PRIMARY KEY NOT NULL,
	`document_id` text NOT NULL,
	`number` integer NOT NULL,
	`file_name` text NOT NULL,
	`media_type` text NOT NULL,
	`pages` integer NOT NULL,
	`bytes` integer NOT NULL,
	`pages_bytes` integer,
	`content_mac` text NOT NULL,
	`blob_key` text NOT NULL,
	`header_bytes` integer NOT NULL,
	`wrapped_key` blob,
	`key_generation` integer NOT NULL,
	`recovery_key` text,
	`created_at` integer NOT NULL,
	`created_by` text,
	`told_at` integer,
	`is_local` integer DEFAULT false NOT NULL,
	`damaged_at` integer,
	`seal` blob,
	FOREIGN KEY (`document_id`) REFERENCES `documents`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`created_by`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `versions_number` ON `versions` (`document_id`,`number`);--> statement-breakpoint
CREATE INDEX `versions_content` ON `versions` (`content_mac`);--> statement-breakpoint
CREATE TABLE `ledger_checkpoints` (
	`size` integer PRIMARY KEY NOT NULL,
	`text` text NOT NULL,
	`created_at` integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE `ledger_days` (
	`day` text NOT NULL,
	`kind` text NOT NULL,
	`outcome` text NOT NULL,
	`reason` text NOT NULL,
	`place` text NOT NULL,
	`organisation` text NOT NULL,
	`entries` integer NOT NULL,
	`last` integer DEFAULT 0 NOT NULL,
	PRIMARY KEY(`day`, `kind`, `outcome`, `reason`, `place`, `organisation`)
);
--> statement-breakpoint
CREATE INDEX `ledger_days_last` ON `ledger_days` (`last`);--> statement-breakpoint
CREATE TABLE `ledger_end` (
	`id` integer PRIMARY KEY NOT NULL,
	`size` integer NOT NULL,
	`hash` text NOT NULL,
	`nodes` blob NOT NULL,
	`signed_size` integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE `ledger_entries` (
	`sequence` integer PRIMARY KEY NOT NULL,
	`body` text NOT NULL,
	`hash` text NOT NULL,
	`occurred_at` text GENERATED ALWAYS AS (json_extract(body, '$.occurredAt')) STORED,
	`action` text GENERATED ALWAYS AS (json_extract(body, '$.action')) STORED,
	`outcome` text GENERATED ALWAYS AS (json_extract(body, '$.outcome')) STORED,
	`document_id` text GENERATED ALWAYS AS (json_extract(body, '$.document')) STORED,
	`recipient_id` text GENERATED ALWAYS AS (json_extract(body, '$.recipient')) STORED,
	`dispatch_id` text GENERATED ALWAYS AS (json_extract(body, '$.dispatch')) STORED,
	`grant_id` text GENERATED ALWAYS AS (json_extract(body, '$.grant')) STORED,
	`reason` text GENERATED ALWAYS AS (json_extract(body, '$.reason')) VIRTUAL,
	`actor_id` text GENERATED ALWAYS AS (json_extract(body, '$.actor.id')) VIRTUAL,
	`device_id` text GENERATED ALWAYS AS (json_extract(body, '$.device')) VIRTUAL,
	`version_id` text GENERATED ALWAYS AS (json_extract(body, '$.version')) VIRTUAL,
	`licence_id` text GENERATED ALWAYS AS (json_extract(body, '$.licence')) VIRTUAL,
	`link_of` text GENERATED ALWAYS AS (json_extract(body, '$.details.linkOf')) VIRTUAL
);
--> statement-breakpoint
CREATE INDEX `ledger_document` ON `ledger_entries` (`document_id`,`sequence`);--> statement-breakpoint
CREATE INDEX `ledger_recipient` ON `ledger_entries` (`recipient_id`,`sequence`);--> statement-breakpoint
CREATE INDEX `ledger_outcome` ON `ledger_entries` (`outcome`,`sequence`);--> statement-breakpoint
CREATE INDEX `ledger_dispatch` ON `ledger_entries` (`dispatch_id`,`sequence`);--> statement-breakpoint
CREATE INDEX `ledger_occurred` ON `ledger_entries` (`occurred_at`);--> statement-breakpoint
CREATE INDEX `ledger_action` ON `ledger_entries` (`action`,`sequence`);--> statement-breakpoint
CREATE INDEX `ledger_actor` ON `ledger_entries` (`actor_id`,`sequence`) WHERE actor_id IS NOT NULL;--> statement-breakpoint
CREATE INDEX `ledger_device` ON `ledger_entries` (`device_id`,`sequence`) WHERE device_id IS NOT NULL;--> statement-breakpoint
CREATE INDEX `ledger_version` ON `ledger_entries` (`version_id`,`sequence`) WHERE version_id IS NOT NULL;--> statement-breakpoint
CREATE INDEX `ledger_licence` ON `ledger_entries` (`licence_id`,`action`) WHERE licence_id IS NOT NULL;--> statement-breakpoint
CREATE INDEX `ledger_link_of` ON `ledger_entries` (`link_of`,`sequence`) WHERE link_of IS NOT NULL;--> statement-breakpoint
CREATE INDEX `ledger_reason` ON `ledger_entries` (`reason`,`sequence`) WHERE reason IS NOT NULL;--> statement-breakpoint
CREATE TABLE `ledger_pairs` (
	`day` text NOT NULL,
	`kind` text NOT NULL,
	`outcome` text NOT NULL,
	`reason` text NOT NULL,
	`place` text NOT NULL,
	`organisation` text NOT NULL,
	`entries` integer NOT NULL,
	`document_id` text NOT NULL,
	`recipient_id` text NOT NULL,
	`dispatch_id` text NOT NULL,
	PRIMARY KEY(`document_id`, `recipient_id`, `dispatch_id`, `day`, `kind`, `outcome`, `reason`, `place`, `organisation`)
);
--> statement-breakpoint
CREATE INDEX `ledger_pairs_recipient` ON `ledger_pairs` (`recipient_id`);--> statement-breakpoint
CREATE INDEX `ledger_pairs_dispatch` ON `ledger_pairs` (`dispatch_id`);--> statement-breakpoint
CREATE INDEX `ledger_pairs_opens` ON `ledger_pairs` (`recipient_id`,`document_id`,`day`,`kind`,`entries`) WHERE kind IN ('opened', 'refused');--> statement-breakpoint
CREATE TABLE `ledger_personal` (
	`sequence` integer NOT NULL,
	`field` text NOT NULL,
	`salt` blob NOT NULL,
	`value` text NOT NULL,
	PRIMARY KEY(`sequence`, `field`),
	FOREIGN KEY (`sequence`) REFERENCES `ledger_entries`(`sequence`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `ledger_personal_value` ON `ledger_personal` (`field`,`value`,`sequence`);--> statement-breakpoint
CREATE TABLE `table_sums` (
	`name` text PRIMARY KEY NOT NULL,
	`sum` blob NOT NULL,
	`rows` integer NOT NULL,
	`sequence` integer NOT NULL,
	`seal` blob NOT NULL
);
--> statement-breakpoint
CREATE TABLE `closed_mailboxes` (
	`address` text PRIMARY KEY NOT NULL
);
--> statement-breakpoint
CREATE TABLE `mailroom` (
	`id` text PRIMARY KEY NOT NULL,
	`to_address` text NOT NULL,
	`from_address` text NOT NULL,
	`subject` text NOT NULL,
	`raw` text NOT NULL,
	`received_at` integer NOT NULL,
	`taken` integer DEFAULT false NOT NULL
);
--> statement-breakpoint
CREATE INDEX `mailroom_to` ON `mailroom` (`to_address`,`received_at`);--> statement-breakpoint
CREATE TABLE `outbox` (
	`id` text PRIMARY KEY NOT NULL,
	`dispatch_id` text,
	`recipient_id` text,
	`to_address` text NOT NULL,
	`reply_to` text,
	`subject` text NOT NULL,
	`body` text NOT NULL,
	`html` text,
	`attached` text DEFAULT '[]' NOT NULL,
	`state` text NOT NULL,
	`urgent` integer DEFAULT false NOT NULL,
	`attempts` integer DEFAULT 0 NOT NULL,
	`next_attempt_at` integer NOT NULL,
	`last_error` text,
	`created_at` integer NOT NULL,
	`delivered_at` integer,
	`returned_at` integer
);
--> statement-breakpoint
CREATE INDEX `outbox_state` ON `outbox` (`state`,`urgent`,`next_attempt_at`);--> statement-breakpoint
CREATE TABLE `organisation` (
	`id` integer PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`zone` text NOT NULL,
	`recovery_key` text,
	`two_people` integer DEFAULT false NOT NULL,
	`demo` integer NOT NULL,
	`clock_offset` integer DEFAULT 0 NOT NULL,
	`created_at` integer NOT NULL,
	`seal` blob
);
--> statement-breakpoint
CREATE TABLE `requests_done` (
	`key` text PRIMARY KEY NOT NULL,
	`asked` text NOT NULL,
	`answer` text,
	`done_at` integer NOT NULL
);
--> statement-breakpoint
CREATE INDEX `requests_done_at` ON `requests_done` (`done_at`);--> statement-breakpoint
CREATE TABLE `service_keys` (
	`name` text PRIMARY KEY NOT NULL,
	`generation` integer NOT NULL,
	`public_key` blob NOT NULL,
	`wrapped` blob NOT NULL,
	`created_at` integer NOT NULL,
	`seal` blob
);
--> statement-breakpoint
CREATE TABLE `settings` (
	`name` text PRIMARY KEY NOT NULL,
	`value` text NOT NULL
);
--> statement-breakpoint
CREATE TABLE `group_members` (
	`group_id` text NOT NULL,
	`recipient_id` text NOT NULL,
	`seal` blob,
	PRIMARY KEY(`group_id`, `recipient_id`),
	FOREIGN KEY (`group_id`) REFERENCES `groups`(`id`) ON UPDATE no action ON DELETE cascade,
	FOREIGN KEY (`recipient_id`) REFERENCES `recipients`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `group_members_recipient` ON `group_members` (`recipient_id`);--> statement-breakpoint
CREATE TABLE `groups` (
	`id` text PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`created_by` text NOT NULL,
	`created_at` integer NOT NULL,
	FOREIGN KEY (`created_by`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `groups_name_unique` ON `groups` (`name`);--> statement-breakpoint
CREATE TABLE `recipients` (
	`id` text PRIMARY KEY NOT NULL,
	`kind` text DEFAULT 'person' NOT NULL,
	`address` text NOT NULL,
	`name` text NOT NULL,
	`organisation` text NOT NULL,
	`zone` text,
	`language` text,
	`blocked` integer DEFAULT false NOT NULL,
	`left_at` integer,
	`own_id` text,
	`same_as` text,
	`added_by` text,
	`created_at` integer NOT NULL,
	`seal` blob
);
--> statement-breakpoint
CREATE UNIQUE INDEX `recipients_address_unique` ON `recipients` (`address`);--> statement-breakpoint
CREATE INDEX `recipients_same` ON `recipients` (`same_as`) WHERE same_as IS NOT NULL;--> statement-breakpoint
CREATE UNIQUE INDEX `recipients_own_id` ON `recipients` (`own_id`);--> statement-breakpoint
CREATE INDEX `recipients_order` ON `recipients` (`organisation`,`name`,`address`);--> statement-breakpoint
CREATE TABLE `ceilings` (
	`level` text NOT NULL,
	`subject` text NOT NULL,
	`limits` text NOT NULL,
	`set_by` text NOT NULL,
	`set_at` integer NOT NULL,
	`seal` blob,
	PRIMARY KEY(`level`, `subject`),
	FOREIGN KEY (`set_by`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `level_defaults` (
	`level` text NOT NULL,
	`subject` text NOT NULL,
	`defaults` text NOT NULL,
	`watermark` text NOT NULL,
	`set_by` text NOT NULL,
	`set_at` integer NOT NULL,
	`seal` blob,
	PRIMARY KEY(`level`, `subject`),
	FOREIGN KEY (`set_by`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `rules` (
	`way` text PRIMARY KEY NOT NULL,
	`leave` text NOT NULL,
	`reason` text NOT NULL,
	`set_by` text NOT NULL,
	`set_at` integer NOT NULL,
	`seal` blob,
	FOREIGN KEY (`set_by`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `challenges` (
	`id` text PRIMARY KEY NOT NULL,
	`link_id` text,
	`address` text NOT NULL,
	`code_mac` text NOT NULL,
	`browser_hash` text NOT NULL,
	`attempts` integer DEFAULT 0 NOT NULL,
	`expires_at` integer NOT NULL,
	`used_at` integer,
	`created_at` integer NOT NULL,
	FOREIGN KEY (`link_id`) REFERENCES `links`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `challenges_address` ON `challenges` (`address`,`created_at`);--> statement-breakpoint
CREATE TABLE `comments` (
	`id` text PRIMARY KEY NOT NULL,
	`document_id` text NOT NULL,
	`version_id` text NOT NULL,
	`page` integer NOT NULL,
	`place` text NOT NULL,
	`answers` text,
	`recipient_id` text,
	`staff_id` text,
	`body` blob NOT NULL,
	`made_at` integer NOT NULL,
	`changed_at` integer,
	`resolved_at` integer,
	`removed_at` integer,
	FOREIGN KEY (`document_id`) REFERENCES `documents`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`version_id`) REFERENCES `versions`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`recipient_id`) REFERENCES `recipients`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`staff_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `comments_document` ON `comments` (`document_id`,`page`);--> statement-breakpoint
CREATE TABLE `devices` (
	`id` text PRIMARY KEY NOT NULL,
	`address` text NOT NULL,
	`recipient_id` text,
	`label` text NOT NULL,
	`name` text,
	`kept` integer NOT NULL,
	`token_hash` text NOT NULL,
	`public_key` text NOT NULL,
	`created_at` integer NOT NULL,
	`proven_at` integer NOT NULL,
	`passkey_at` integer,
	`expires_at` integer NOT NULL,
	`ended_at` integer,
	`seal` blob,
	FOREIGN KEY (`recipient_id`) REFERENCES `recipients`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `devices_tokenHash_unique` ON `devices` (`token_hash`);--> statement-breakpoint
CREATE TABLE `licence_pages` (
	`licence_id` text NOT NULL,
	`page` integer NOT NULL,
	`shown_for` integer DEFAULT 0 NOT NULL,
	PRIMARY KEY(`licence_id`, `page`),
	FOREIGN KEY (`licence_id`) REFERENCES `licences`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `licences` (
	`id` text PRIMARY KEY NOT NULL,
	`grant_id` text NOT NULL,
	`document_id` text NOT NULL,
	`version_id` text NOT NULL,
	`recipient_id` text NOT NULL,
	`device_id` text NOT NULL,
	`watermark` text NOT NULL,
	`statement` text NOT NULL,
	`opened_at` integer NOT NULL,
	`expires_at` integer NOT NULL,
	`key_given_at` integer,
	`offline_until` integer,
	`offline_opens` integer DEFAULT 0 NOT NULL,
	`seal` blob,
	FOREIGN KEY (`grant_id`) REFERENCES `grants`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`document_id`) REFERENCES `documents`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`version_id`) REFERENCES `versions`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`recipient_id`) REFERENCES `recipients`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`device_id`) REFERENCES `devices`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `licences_document` ON `licences` (`document_id`);--> statement-breakpoint
CREATE INDEX `licences_offline` ON `licences` (`offline_until`) WHERE offline_until IS NOT NULL;--> statement-breakpoint
CREATE INDEX `licences_grant` ON `licences` (`grant_id`);--> statement-breakpoint
CREATE INDEX `licences_recipient` ON `licences` (`recipient_id`,`opened_at`);--> statement-breakpoint
CREATE TABLE `notice_acceptances` (
	`address` text NOT NULL,
	`version` integer NOT NULL,
	`language` text NOT NULL,
	`device_id` text NOT NULL,
	`accepted_at` integer NOT NULL,
	PRIMARY KEY(`address`, `version`),
	FOREIGN KEY (`version`) REFERENCES `reader_notices`(`version`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`device_id`) REFERENCES `devices`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `paper_copies` (
	`id` text PRIMARY KEY NOT NULL,
	`grant_id` text NOT NULL,
	`document_id` text NOT NULL,
	`version_id` text NOT NULL,
	`recipient_id` text NOT NULL,
	`number` integer NOT NULL,
	`from_page` integer NOT NULL,
	`to_page` integer NOT NULL,
	`made_at` integer NOT NULL,
	`state` text DEFAULT 'out' NOT NULL,
	`note` text DEFAULT '' NOT NULL,
	`noted_by` text,
	`noted_at` integer,
	FOREIGN KEY (`grant_id`) REFERENCES `grants`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`document_id`) REFERENCES `documents`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`version_id`) REFERENCES `versions`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`recipient_id`) REFERENCES `recipients`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`noted_by`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `paper_copies_number` ON `paper_copies` (`grant_id`,`number`);--> statement-breakpoint
CREATE INDEX `paper_copies_document` ON `paper_copies` (`document_id`,`made_at`);--> statement-breakpoint
CREATE TABLE `passkey_challenges` (
	`holder` text PRIMARY KEY NOT NULL,
	`challenge` text NOT NULL,
	`expires_at` integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE `passkeys` (
	`id` text PRIMARY KEY NOT NULL,
	`address` text NOT NULL,
	`credential` text NOT NULL,
	`public_key` blob NOT NULL,
	`counter` integer NOT NULL,
	`transports` text NOT NULL,
	`label` text NOT NULL,
	`proven_at` integer NOT NULL,
	`created_at` integer NOT NULL,
	`used_at` integer NOT NULL,
	`ended_at` integer,
	`seal` blob
);
--> statement-breakpoint
CREATE UNIQUE INDEX `passkeys_credential_unique` ON `passkeys` (`credential`);--> statement-breakpoint
CREATE INDEX `passkeys_address` ON `passkeys` (`address`);--> statement-breakpoint
CREATE TABLE `reader_notices` (
	`version` integer PRIMARY KEY NOT NULL,
	`texts` text NOT NULL,
	`made_by` text NOT NULL,
	`created_at` integer NOT NULL,
	FOREIGN KEY (`made_by`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `reading_aids` (
	`id` text PRIMARY KEY NOT NULL,
	`owner_id` text NOT NULL,
	`recipient_id` text NOT NULL,
	`since` integer NOT NULL,
	`seal` blob,
	FOREIGN KEY (`owner_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`recipient_id`) REFERENCES `recipients`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `reading_aids_once` ON `reading_aids` (`recipient_id`,`owner_id`);--> statement-breakpoint
CREATE TABLE `revisions` (
	`id` text PRIMARY KEY NOT NULL,
	`document_id` text NOT NULL,
	`version_id` text NOT NULL,
	`based_on` text NOT NULL,
	`recipient_id` text NOT NULL,
	`note` text NOT NULL,
	`state` text DEFAULT 'waiting' NOT NULL,
	`sent_at` integer NOT NULL,
	`answer` text DEFAULT '' NOT NULL,
	`answered_by` text,
	`answered_at` integer,
	FOREIGN KEY (`document_id`) REFERENCES `documents`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`version_id`) REFERENCES `versions`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`based_on`) REFERENCES `versions`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`recipient_id`) REFERENCES `recipients`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`answered_by`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `revisions_versionId_unique` ON `revisions` (`version_id`);--> statement-breakpoint
CREATE INDEX `revisions_document` ON `revisions` (`document_id`,`sent_at`);--> statement-breakpoint
CREATE INDEX `revisions_state` ON `revisions` (`state`,`sent_at`);--> statement-breakpoint
CREATE TABLE `saved_views` (
	`id` text PRIMARY KEY NOT NULL,
	`staff_id` text NOT NULL,
	`place` text NOT NULL,
	`name` text NOT NULL,
	`query` text NOT NULL,
	`created_at` integer NOT NULL,
	FOREIGN KEY (`staff_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `saved_views_name` ON `saved_views` (`staff_id`,`place`,`name`);--> statement-breakpoint
CREATE TABLE `sender_limits` (
	`staff_id` text PRIMARY KEY NOT NULL,
	`limits` text NOT NULL,
	`set_by` text NOT NULL,
	`set_at` integer NOT NULL,
	`seal` blob,
	FOREIGN KEY (`staff_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action,
	FOREIGN KEY (`set_by`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `staff` (
	`id` text PRIMARY KEY NOT NULL,
	`name` text NOT NULL,
	`email` text NOT NULL,
	`email_verified` integer NOT NULL,
	`image` text,
	`role` text NOT NULL,
	`role_since` integer DEFAULT 0 NOT NULL,
	`disabled_at` integer,
	`factor` blob,
	`factor_generation` integer,
	`factor_step` integer,
	`created_at` integer NOT NULL,
	`updated_at` integer NOT NULL,
	`seal` blob
);
--> statement-breakpoint
CREATE UNIQUE INDEX `staff_email_unique` ON `staff` (`email`);--> statement-breakpoint
CREATE TABLE `staff_accounts` (
	`id` text PRIMARY KEY NOT NULL,
	`account_id` text NOT NULL,
	`provider_id` text NOT NULL,
	`user_id` text NOT NULL,
	`access_token` text,
	`refresh_token` text,
	`id_token` text,
	`access_token_expires_at` integer,
	`refresh_token_expires_at` integer,
	`scope` text,
	`password` text,
	`created_at` integer NOT NULL,
	`updated_at` integer NOT NULL,
	`seal` blob,
	FOREIGN KEY (`user_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `staff_sessions` (
	`id` text PRIMARY KEY NOT NULL,
	`token` text NOT NULL,
	`user_id` text NOT NULL,
	`expires_at` integer NOT NULL,
	`ip_address` text,
	`user_agent` text,
	`proven_at` integer,
	`created_at` integer NOT NULL,
	`updated_at` integer NOT NULL,
	`seal` blob,
	FOREIGN KEY (`user_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `staff_sessions_token_unique` ON `staff_sessions` (`token`);--> statement-breakpoint
CREATE TABLE `staff_tickets` (
	`token_mac` text PRIMARY KEY NOT NULL,
	`staff_id` text NOT NULL,
	`expires_at` integer NOT NULL,
	`used_at` integer,
	`created_at` integer NOT NULL,
	FOREIGN KEY (`staff_id`) REFERENCES `staff`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE INDEX `staff_tickets_staff` ON `staff_tickets` (`staff_id`);--> statement-breakpoint
CREATE TABLE `staff_verifications` (
	`id` text PRIMARY KEY NOT NULL,
	`identifier` text NOT NULL,
	`value` text NOT NULL,
	`expires_at` integer NOT NULL,
	`created_at` integer NOT NULL,
	`updated_at` integer NOT NULL
);
