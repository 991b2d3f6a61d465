-- The tables as they came to be, step by step: each name is that of the migration that it was. A data folder of in between runs what it lacks.

-- step 20261125103359_Tables
DROP INDEX "IX_Deliveries_Destination_Slot";

DROP INDEX "IX_Deliveries_JobId";

ALTER TABLE "Deliveries" RENAME TO "DeliveriesOfBefore";

CREATE TABLE "Deliveries" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_Deliveries" PRIMARY KEY,
    "JobId" TEXT NOT NULL,
    "Number" INTEGER NOT NULL,
    "Kind" TEXT NOT NULL,
    "At" TEXT NOT NULL
);

ALTER TABLE "Variants" ADD "Recipe" TEXT NOT NULL DEFAULT '';

ALTER TABLE "Variants" ADD "Want" TEXT NOT NULL DEFAULT '';

ALTER TABLE "Variants" ADD "WantedAt" TEXT NOT NULL DEFAULT '0001-01-01 00:00:00';

ALTER TABLE "Pictures" ADD "RemovedDays" INTEGER NOT NULL DEFAULT 0;

ALTER TABLE "Jobs" ADD "Bytes" INTEGER NOT NULL DEFAULT 0;

ALTER TABLE "Jobs" ADD "Done" INTEGER NOT NULL DEFAULT 0;

ALTER TABLE "Jobs" ADD "Failed" INTEGER NOT NULL DEFAULT 0;

ALTER TABLE "Jobs" ADD "Fault" TEXT NULL;

ALTER TABLE "Jobs" ADD "Files" INTEGER NOT NULL DEFAULT 0;

ALTER TABLE "Jobs" ADD "Left" INTEGER NOT NULL DEFAULT 0;

ALTER TABLE "Jobs" ADD "Looks" INTEGER NOT NULL DEFAULT 0;

ALTER TABLE "Jobs" ADD "Name" TEXT NOT NULL DEFAULT '';

ALTER TABLE "Jobs" ADD "Numbered" INTEGER NOT NULL DEFAULT 0;

ALTER TABLE "Jobs" ADD "Patterns" TEXT NOT NULL DEFAULT '{}';

ALTER TABLE "Jobs" ADD "Pictures" INTEGER NOT NULL DEFAULT 0;

ALTER TABLE "Jobs" ADD "Prefix" TEXT NOT NULL DEFAULT '';

ALTER TABLE "Jobs" ADD "Sequence" INTEGER NOT NULL DEFAULT 0;

CREATE TABLE "Cells" (
    "JobId" TEXT NOT NULL,
    "PictureId" TEXT NOT NULL,
    "Slot" TEXT NOT NULL,
    "State" TEXT NOT NULL,
    "Verdict" TEXT NOT NULL,
    "Looks" TEXT NOT NULL,
    CONSTRAINT "PK_Cells" PRIMARY KEY ("JobId", "PictureId", "Slot")
);

CREATE TABLE "Commands" (
    "Id" INTEGER NOT NULL CONSTRAINT "PK_Commands" PRIMARY KEY AUTOINCREMENT,
    "JobId" TEXT NOT NULL,
    "Sequence" INTEGER NOT NULL,
    "Sender" TEXT NULL,
    "Actor" TEXT NOT NULL,
    "At" TEXT NOT NULL,
    "Kind" TEXT NOT NULL,
    "Step" INTEGER NULL,
    "Version" INTEGER NOT NULL,
    "Body" TEXT NOT NULL,
    "Inverse" TEXT NOT NULL
);

CREATE TABLE "DeliveredFiles" (
    "Id" INTEGER NOT NULL CONSTRAINT "PK_DeliveredFiles" PRIMARY KEY AUTOINCREMENT,
    "DeliveryId" TEXT NOT NULL,
    "Path" TEXT NOT NULL,
    "Destination" TEXT NOT NULL,
    "Slot" TEXT NOT NULL,
    "ContentHash" TEXT NULL,
    "File" TEXT NOT NULL,
    CONSTRAINT "FK_DeliveredFiles_Deliveries_DeliveryId" FOREIGN KEY ("DeliveryId") REFERENCES "Deliveries" ("Id") ON DELETE CASCADE
);

CREATE TABLE "Failures" (
    "FileId" TEXT NOT NULL CONSTRAINT "PK_Failures" PRIMARY KEY,
    "PictureId" TEXT NOT NULL,
    "Tries" INTEGER NOT NULL,
    "At" TEXT NOT NULL,
    "NextAt" TEXT NULL,
    "Code" TEXT NOT NULL,
    "Reason" TEXT NOT NULL,
    CONSTRAINT "FK_Failures_Pictures_PictureId" FOREIGN KEY ("PictureId") REFERENCES "Pictures" ("Id") ON DELETE CASCADE
);

CREATE TABLE "JobDecisions" (
    "JobId" TEXT NOT NULL,
    "PictureId" TEXT NOT NULL,
    "Slot" TEXT NOT NULL,
    "Loose" INTEGER NOT NULL,
    "Frame" TEXT NULL,
    "Skip" INTEGER NOT NULL,
    "Accepted" TEXT NOT NULL,
    "LetThrough" TEXT NOT NULL,
    "Format" TEXT NULL,
    "Quality" INTEGER NULL,
    "Chosen" INTEGER NOT NULL,
    CONSTRAINT "PK_JobDecisions" PRIMARY KEY ("JobId", "PictureId", "Slot")
);

CREATE TABLE "JobFramings" (
    "JobId" TEXT NOT NULL,
    "PictureId" TEXT NOT NULL,
    "Shape" TEXT NOT NULL,
    "Frame" TEXT NOT NULL,
    CONSTRAINT "PK_JobFramings" PRIMARY KEY ("JobId", "PictureId", "Shape")
);

CREATE TABLE "JobPictures" (
    "JobId" TEXT NOT NULL,
    "PictureId" TEXT NOT NULL,
    "Place" INTEGER NOT NULL,
    "Quarters" INTEGER NOT NULL,
    "Degrees" REAL NOT NULL,
    "FocusX" REAL NULL,
    "FocusY" REAL NULL,
    "Keep" TEXT NOT NULL,
    "NoSuggestion" INTEGER NOT NULL,
    "Keywords" TEXT NOT NULL,
    "Alternative" TEXT NOT NULL,
    "OtherShape" INTEGER NOT NULL,
    CONSTRAINT "PK_JobPictures" PRIMARY KEY ("JobId", "PictureId")
);

CREATE TABLE "JobSlots" (
    "JobId" TEXT NOT NULL,
    "Slot" TEXT NOT NULL,
    "Place" INTEGER NOT NULL,
    "Format" TEXT NULL,
    "Quality" INTEGER NULL,
    "Chosen" INTEGER NOT NULL,
    "LaidOutBy" TEXT NOT NULL,
    CONSTRAINT "PK_JobSlots" PRIMARY KEY ("JobId", "Slot")
);

CREATE TABLE "Settings" (
    "Name" TEXT NOT NULL CONSTRAINT "PK_Settings" PRIMARY KEY,
    "Value" TEXT NOT NULL
);

CREATE TABLE "Steps" (
    "JobId" TEXT NOT NULL,
    "Number" INTEGER NOT NULL,
    "Gesture" TEXT NULL,
    "At" TEXT NOT NULL,
    "State" TEXT NOT NULL,
    CONSTRAINT "PK_Steps" PRIMARY KEY ("JobId", "Number")
);

CREATE TABLE "Wants" (
    "JobId" TEXT NOT NULL,
    "PictureId" TEXT NOT NULL,
    "Slot" TEXT NOT NULL,
    "Ordinal" INTEGER NOT NULL,
    "FileId" TEXT NOT NULL,
    "Place" INTEGER NOT NULL,
    "Rank" INTEGER NOT NULL,
    "State" TEXT NOT NULL,
    "Bytes" INTEGER NOT NULL,
    CONSTRAINT "PK_Wants" PRIMARY KEY ("JobId", "PictureId", "Slot", "Ordinal")
);

INSERT INTO Deliveries (Id, JobId, Number, Kind, At)
    SELECT JobId, JobId, 1, 'zip', max(At) FROM DeliveriesOfBefore GROUP BY JobId;
INSERT INTO DeliveredFiles (DeliveryId, Path, Destination, Slot, File)
    SELECT JobId, Path, Destination, Slot, File FROM DeliveriesOfBefore;

DROP TABLE "DeliveriesOfBefore";

CREATE INDEX "IX_Variants_ContentHash" ON "Variants" ("ContentHash");

CREATE INDEX "IX_Jobs_CreatedAt" ON "Jobs" ("CreatedAt");

CREATE UNIQUE INDEX "IX_Deliveries_JobId_Number" ON "Deliveries" ("JobId", "Number");

CREATE UNIQUE INDEX "IX_Commands_JobId_Sender" ON "Commands" ("JobId", "Sender") WHERE Sender IS NOT NULL;

CREATE INDEX "IX_Commands_JobId_Sequence" ON "Commands" ("JobId", "Sequence");

CREATE INDEX "IX_Commands_JobId_Step" ON "Commands" ("JobId", "Step");

CREATE INDEX "IX_DeliveredFiles_DeliveryId" ON "DeliveredFiles" ("DeliveryId");

CREATE INDEX "IX_DeliveredFiles_Destination_Slot" ON "DeliveredFiles" ("Destination", "Slot");

CREATE INDEX "IX_Failures_NextAt" ON "Failures" ("NextAt");

CREATE INDEX "IX_Failures_PictureId" ON "Failures" ("PictureId");

CREATE INDEX "IX_JobPictures_JobId_Place" ON "JobPictures" ("JobId", "Place");

CREATE INDEX "IX_JobPictures_PictureId" ON "JobPictures" ("PictureId");

CREATE INDEX "IX_JobSlots_Slot" ON "JobSlots" ("Slot");

CREATE INDEX "IX_Wants_FileId" ON "Wants" ("FileId");

CREATE INDEX "IX_Wants_JobId_Place_Rank" ON "Wants" ("JobId", "Place", "Rank") WHERE State = 'open';

CREATE TABLE "ef_temp_Variants" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_Variants" PRIMARY KEY,
    "Bytes" INTEGER NOT NULL,
    "ContentHash" TEXT NOT NULL,
    "Encodes" INTEGER NOT NULL,
    "Format" TEXT NOT NULL,
    "Height" INTEGER NOT NULL,
    "Likeness" REAL NULL,
    "MadeAt" TEXT NOT NULL,
    "Order" TEXT NULL,
    "PictureId" TEXT NOT NULL,
    "Quality" INTEGER NULL,
    "Reasons" TEXT NOT NULL,
    "Recipe" TEXT NOT NULL,
    "Verdict" TEXT NOT NULL,
    "Want" TEXT NOT NULL,
    "WantedAt" TEXT NOT NULL,
    "Width" INTEGER NOT NULL,
    "WorstPlace" TEXT NULL,
    CONSTRAINT "FK_Variants_Pictures_PictureId" FOREIGN KEY ("PictureId") REFERENCES "Pictures" ("Id") ON DELETE CASCADE
);

INSERT INTO "ef_temp_Variants" ("Id", "Bytes", "ContentHash", "Encodes", "Format", "Height", "Likeness", "MadeAt", "Order", "PictureId", "Quality", "Reasons", "Recipe", "Verdict", "Want", "WantedAt", "Width", "WorstPlace")
SELECT "Id", "Bytes", "ContentHash", "Encodes", "Format", "Height", "Likeness", "MadeAt", "Order", "PictureId", "Quality", "Reasons", "Recipe", "Verdict", "Want", "WantedAt", "Width", "WorstPlace"
FROM "Variants";

CREATE TABLE "ef_temp_Jobs" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_Jobs" PRIMARY KEY,
    "ArchivedAt" TEXT NULL,
    "Bytes" INTEGER NOT NULL,
    "CreatedAt" TEXT NOT NULL,
    "Done" INTEGER NOT NULL,
    "Failed" INTEGER NOT NULL,
    "Fault" TEXT NULL,
    "Files" INTEGER NOT NULL,
    "Left" INTEGER NOT NULL,
    "Looks" INTEGER NOT NULL,
    "Name" TEXT NOT NULL,
    "Numbered" INTEGER NOT NULL,
    "Patterns" TEXT NOT NULL,
    "Pictures" INTEGER NOT NULL,
    "Prefix" TEXT NOT NULL,
    "Run" TEXT NOT NULL,
    "Sequence" INTEGER NOT NULL,
    "Text" TEXT NULL
);

INSERT INTO "ef_temp_Jobs" ("Id", "ArchivedAt", "Bytes", "CreatedAt", "Done", "Failed", "Fault", "Files", "Left", "Looks", "Name", "Numbered", "Patterns", "Pictures", "Prefix", "Run", "Sequence", "Text")
SELECT "Id", "ArchivedAt", "Bytes", "CreatedAt", "Done", "Failed", "Fault", "Files", "Left", "Looks", "Name", "Numbered", "Patterns", "Pictures", "Prefix", "Run", "Sequence", "Text"
FROM "Jobs";

PRAGMA foreign_keys = 0;

DROP TABLE "Variants";

ALTER TABLE "ef_temp_Variants" RENAME TO "Variants";

DROP TABLE "Jobs";

ALTER TABLE "ef_temp_Jobs" RENAME TO "Jobs";

PRAGMA foreign_keys = 1;

CREATE INDEX "IX_Variants_ContentHash" ON "Variants" ("ContentHash");

CREATE INDEX "IX_Variants_PictureId" ON "Variants" ("PictureId");

CREATE INDEX "IX_Jobs_CreatedAt" ON "Jobs" ("CreatedAt");

-- step 20261125114917_LibraryIndex
CREATE INDEX "IX_Pictures_AddedAt" ON "Pictures" ("AddedAt");

-- step 20261125135838_LibrarySearch
DROP INDEX "IX_Pictures_AddedAt";

CREATE INDEX "IX_Pictures_AddedAt_Name_RemovedAt" ON "Pictures" ("AddedAt", "Name", "RemovedAt");

CREATE INDEX "IX_JobPictures_Keywords_Alternative_PictureId" ON "JobPictures" ("Keywords", "Alternative", "PictureId") WHERE Keywords <> '' OR Alternative <> '';

-- step 20261125182945_Subjects
ALTER TABLE "Pictures" ADD "SubjectSought" INTEGER NOT NULL DEFAULT 1;

CREATE INDEX "IX_Pictures_SubjectSought" ON "Pictures" ("SubjectSought") WHERE SubjectSought = 0;

-- step 20261126015347_LightLoss
ALTER TABLE "Pictures" ADD "LightLoss" REAL NULL;

-- step 20261126051420_PageWords
ALTER TABLE "Variants" ADD "Edge" TEXT NULL;

ALTER TABLE "Variants" ADD "StandIn" TEXT NULL;

ALTER TABLE "JobPictures" ADD "Ornament" INTEGER NOT NULL DEFAULT 0;

-- step 20261126055647_Publications
CREATE TABLE "FetchCounts" (
    "PublicationId" TEXT NOT NULL,
    "Path" TEXT NOT NULL,
    "Fetches" INTEGER NOT NULL,
    "Unchanged" INTEGER NOT NULL,
    "Bytes" INTEGER NOT NULL,
    CONSTRAINT "PK_FetchCounts" PRIMARY KEY ("PublicationId", "Path")
);

CREATE TABLE "Publications" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_Publications" PRIMARY KEY,
    "JobId" TEXT NOT NULL,
    "Key" TEXT NOT NULL,
    "At" TEXT NOT NULL,
    "WithdrawnAt" TEXT NULL
);

CREATE TABLE "PublishedPlaces" (
    "Id" INTEGER NOT NULL CONSTRAINT "PK_PublishedPlaces" PRIMARY KEY AUTOINCREMENT,
    "PublicationId" TEXT NOT NULL,
    "Path" TEXT NOT NULL,
    "PictureId" TEXT NOT NULL,
    "Version" TEXT NOT NULL,
    "At" TEXT NOT NULL,
    "ExpiresAt" TEXT NULL,
    "Alternative" TEXT NULL,
    "Facts" TEXT NOT NULL,
    "Slots" TEXT NOT NULL,
    CONSTRAINT "FK_PublishedPlaces_Publications_PublicationId" FOREIGN KEY ("PublicationId") REFERENCES "Publications" ("Id") ON DELETE CASCADE
);

CREATE TABLE "PublishedFiles" (
    "PlaceId" INTEGER NOT NULL,
    "Ordinal" INTEGER NOT NULL,
    "FileId" TEXT NOT NULL,
    "Recipe" TEXT NOT NULL,
    "Slot" TEXT NOT NULL,
    "Descriptor" TEXT NOT NULL,
    "LetThrough" INTEGER NOT NULL,
    CONSTRAINT "PK_PublishedFiles" PRIMARY KEY ("PlaceId", "Ordinal"),
    CONSTRAINT "FK_PublishedFiles_PublishedPlaces_PlaceId" FOREIGN KEY ("PlaceId") REFERENCES "PublishedPlaces" ("Id") ON DELETE CASCADE
);

CREATE UNIQUE INDEX "IX_Publications_JobId" ON "Publications" ("JobId");

CREATE UNIQUE INDEX "IX_Publications_Key" ON "Publications" ("Key");

CREATE INDEX "IX_PublishedFiles_FileId" ON "PublishedFiles" ("FileId");

CREATE INDEX "IX_PublishedPlaces_PictureId" ON "PublishedPlaces" ("PictureId");

CREATE INDEX "IX_PublishedPlaces_PublicationId_Path" ON "PublishedPlaces" ("PublicationId", "Path");

-- step 20261126091437_Dressed
ALTER TABLE "Variants" ADD "Dressed" TEXT NULL;

-- step 20261126111921_SideFiles
ALTER TABLE "JobPictures" ADD "Title" TEXT NOT NULL DEFAULT '';

ALTER TABLE "JobDecisions" ADD "Dress" TEXT NULL;

CREATE TABLE "SideFiles" (
    "Name" TEXT NOT NULL CONSTRAINT "PK_SideFiles" PRIMARY KEY,
    "Content" TEXT NOT NULL,
    "Bytes" INTEGER NOT NULL,
    "At" TEXT NOT NULL
);

-- step 20261126144408_Pairs
DROP INDEX "IX_Pictures_AddedAt_Name_RemovedAt";

ALTER TABLE "Pictures" ADD "Parts" TEXT NULL;

CREATE INDEX "IX_Pictures_AddedAt_Name_RemovedAt_Parts" ON "Pictures" ("AddedAt", "Name", "RemovedAt", "Parts");

-- step 20261126190917_PageChecks
CREATE TABLE "PageChecks" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_PageChecks" PRIMARY KEY,
    "Name" TEXT NOT NULL,
    "Address" TEXT NULL,
    "Allowed" TEXT NOT NULL,
    "Viewports" TEXT NOT NULL,
    "Densities" TEXT NOT NULL,
    "State" TEXT NOT NULL,
    "Trouble" TEXT NULL,
    "Images" INTEGER NULL,
    "Mean" INTEGER NULL,
    "Possible" INTEGER NULL,
    "AddedAt" TEXT NOT NULL
);

-- step 20261126214411_PageJobs
CREATE TABLE "PageJobs" (
    "JobId" TEXT NOT NULL CONSTRAINT "PK_PageJobs" PRIMARY KEY,
    "CheckId" TEXT NOT NULL,
    "Places" TEXT NOT NULL,
    "State" TEXT NULL,
    "Trouble" TEXT NULL,
    "AskedAt" TEXT NULL,
    CONSTRAINT "FK_PageJobs_PageChecks_CheckId" FOREIGN KEY ("CheckId") REFERENCES "PageChecks" ("Id") ON DELETE CASCADE
);

CREATE INDEX "IX_PageJobs_CheckId" ON "PageJobs" ("CheckId");

-- step 20261126232135_PictureFolders
CREATE TABLE "PictureFolders" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_PictureFolders" PRIMARY KEY,
    "Name" TEXT NOT NULL,
    "IsSent" INTEGER NOT NULL,
    "Folder" TEXT NOT NULL,
    "Rule" TEXT NOT NULL,
    "State" TEXT NOT NULL,
    "Paths" TEXT NULL,
    "Trouble" TEXT NULL,
    "Mended" INTEGER NOT NULL,
    "AddedAt" TEXT NOT NULL,
    "AskedAt" TEXT NOT NULL
);

-- step 20261127020405_Receivers
CREATE TABLE "Receivers" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_Receivers" PRIMARY KEY,
    "Rule" TEXT NOT NULL,
    "Secret" TEXT NULL,
    "AddedAt" TEXT NOT NULL
);

CREATE TABLE "Sendings" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_Sendings" PRIMARY KEY,
    "JobId" TEXT NOT NULL,
    "ReceiverId" TEXT NOT NULL,
    "State" TEXT NOT NULL,
    "Trouble" TEXT NULL,
    "AskedAt" TEXT NOT NULL,
    "EndedAt" TEXT NULL,
    CONSTRAINT "FK_Sendings_Receivers_ReceiverId" FOREIGN KEY ("ReceiverId") REFERENCES "Receivers" ("Id") ON DELETE CASCADE
);

CREATE TABLE "SentFiles" (
    "ReceiverId" TEXT NOT NULL,
    "JobId" TEXT NOT NULL,
    "Path" TEXT NOT NULL,
    "PictureId" TEXT NOT NULL,
    "Slot" TEXT NOT NULL,
    "ContentHash" TEXT NOT NULL,
    "Bytes" INTEGER NOT NULL,
    "State" TEXT NOT NULL,
    "Said" TEXT NOT NULL,
    "Shown" TEXT NOT NULL,
    "HeldHash" TEXT NULL,
    "At" TEXT NOT NULL,
    CONSTRAINT "PK_SentFiles" PRIMARY KEY ("JobId", "ReceiverId", "Path"),
    CONSTRAINT "FK_SentFiles_Receivers_ReceiverId" FOREIGN KEY ("ReceiverId") REFERENCES "Receivers" ("Id") ON DELETE CASCADE
);

CREATE TABLE "Survivals" (
    "Id" TEXT NOT NULL CONSTRAINT "PK_Survivals" PRIMARY KEY,
    "ReceiverId" TEXT NOT NULL,
    "JobId" TEXT NOT NULL,
    "Path" TEXT NOT NULL,
    "ContentHash" TEXT NOT NULL,
    "State" TEXT NOT NULL,
    "Trouble" TEXT NULL,
    "Tried" TEXT NOT NULL,
    "AskedAt" TEXT NOT NULL,
    CONSTRAINT "FK_Survivals_Receivers_ReceiverId" FOREIGN KEY ("ReceiverId") REFERENCES "Receivers" ("Id") ON DELETE CASCADE
);

CREATE UNIQUE INDEX "IX_Sendings_JobId_ReceiverId" ON "Sendings" ("JobId", "ReceiverId");

CREATE INDEX "IX_Sendings_ReceiverId" ON "Sendings" ("ReceiverId");

CREATE INDEX "IX_SentFiles_ReceiverId" ON "SentFiles" ("ReceiverId");

CREATE UNIQUE INDEX "IX_Survivals_JobId_ReceiverId_Path" ON "Survivals" ("JobId", "ReceiverId", "Path");

CREATE INDEX "IX_Survivals_ReceiverId" ON "Survivals" ("ReceiverId");

