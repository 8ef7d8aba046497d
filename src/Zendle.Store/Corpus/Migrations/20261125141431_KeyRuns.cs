using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Zendle.Store.Corpus.Migrations
{
    /// <inheritdoc />
    public partial class KeyRuns : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "RecordKeys");

            migrationBuilder.CreateTable(
                name: "KeyParts",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false),
                    Run = table.Column<int>(type: "INTEGER", nullable: false),
                    Level = table.Column<int>(type: "INTEGER", nullable: false),
                    First = table.Column<long>(type: "INTEGER", nullable: false),
                    Keys = table.Column<byte[]>(type: "BLOB", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_KeyParts", x => x.Id);
                });

            migrationBuilder.CreateIndex(
                name: "IX_KeyParts_Run",
                table: "KeyParts",
                column: "Run");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "KeyParts");

            migrationBuilder.CreateTable(
                name: "RecordKeys",
                columns: table => new
                {
                    Key = table.Column<long>(type: "INTEGER", nullable: false),
                    RecordId = table.Column<int>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_RecordKeys", x => new { x.Key, x.RecordId });
                });

            migrationBuilder.CreateIndex(
                name: "IX_RecordKeys_RecordId",
                table: "RecordKeys",
                column: "RecordId");
        }
    }
}
