using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Zendle.Store.Corpus.Migrations
{
    /// <inheritdoc />
    public partial class Merging : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "Evidence");

            migrationBuilder.DropColumn(
                name: "Doi",
                table: "Records");

            migrationBuilder.DropColumn(
                name: "Type",
                table: "Records");

            migrationBuilder.DropColumn(
                name: "VersionDois",
                table: "Records");

            migrationBuilder.DropColumn(
                name: "Year",
                table: "Records");

            // Keys are looked up by value only, and there are a dozen to a record: a table that is its own index takes a third of the room and of the time.
            migrationBuilder.DropTable(name: "RecordKeys");
            migrationBuilder.Sql("CREATE TABLE RecordKeys (Key INTEGER NOT NULL, RecordId INTEGER NOT NULL, PRIMARY KEY (Key, RecordId)) WITHOUT ROWID");
            migrationBuilder.CreateIndex(name: "IX_RecordKeys_RecordId", table: "RecordKeys", column: "RecordId");

            migrationBuilder.CreateTable(
                name: "Matches",
                columns: table => new
                {
                    First = table.Column<int>(type: "INTEGER", nullable: false),
                    Second = table.Column<int>(type: "INTEGER", nullable: false),
                    Compared = table.Column<int>(type: "INTEGER", nullable: false),
                    Score = table.Column<double>(type: "REAL", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Matches", x => new { x.First, x.Second });
                });

            migrationBuilder.CreateTable(
                name: "Rulings",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    First = table.Column<int>(type: "INTEGER", nullable: false),
                    Second = table.Column<int>(type: "INTEGER", nullable: false),
                    Same = table.Column<bool>(type: "INTEGER", nullable: true),
                    Act = table.Column<Guid>(type: "TEXT", nullable: false),
                    By = table.Column<string>(type: "TEXT", nullable: false),
                    At = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Rulings", x => x.Id);
                });

            migrationBuilder.CreateIndex(
                name: "IX_Matches_Second",
                table: "Matches",
                column: "Second");

            migrationBuilder.CreateIndex(
                name: "IX_Rulings_First",
                table: "Rulings",
                column: "First");

            migrationBuilder.CreateIndex(
                name: "IX_Rulings_Second",
                table: "Rulings",
                column: "Second");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "Matches");

            migrationBuilder.DropTable(
                name: "Rulings");

            migrationBuilder.AddColumn<string>(
                name: "Doi",
                table: "Records",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<int>(
                name: "Type",
                table: "Records",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.AddColumn<string>(
                name: "VersionDois",
                table: "Records",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<int>(
                name: "Year",
                table: "Records",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.CreateTable(
                name: "Evidence",
                columns: table => new
                {
                    First = table.Column<int>(type: "INTEGER", nullable: false),
                    Second = table.Column<int>(type: "INTEGER", nullable: false),
                    Reason = table.Column<int>(type: "INTEGER", nullable: false),
                    WorkId = table.Column<int>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Evidence", x => new { x.First, x.Second });
                });

            migrationBuilder.CreateIndex(
                name: "IX_Evidence_WorkId",
                table: "Evidence",
                column: "WorkId");
        }
    }
}
