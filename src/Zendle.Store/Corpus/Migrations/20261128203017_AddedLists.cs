using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Zendle.Store.Corpus.Migrations
{
    /// <inheritdoc />
    public partial class AddedLists : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateTable(
                name: "AddedLists",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false),
                    SourceId = table.Column<int>(type: "INTEGER", nullable: false),
                    WorkId = table.Column<int>(type: "INTEGER", nullable: false),
                    Citing = table.Column<long>(type: "INTEGER", nullable: false),
                    Sequence = table.Column<long>(type: "INTEGER", nullable: false),
                    References = table.Column<byte[]>(type: "BLOB", nullable: false),
                    ReferenceKeys = table.Column<byte[]>(type: "BLOB", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_AddedLists", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "TieSources",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false),
                    Address = table.Column<string>(type: "TEXT", nullable: false),
                    Name = table.Column<string>(type: "TEXT", nullable: false),
                    Rows = table.Column<int>(type: "INTEGER", nullable: false),
                    Unread = table.Column<int>(type: "INTEGER", nullable: false),
                    At = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_TieSources", x => x.Id);
                });

            migrationBuilder.CreateIndex(
                name: "IX_AddedLists_Sequence",
                table: "AddedLists",
                column: "Sequence");

            migrationBuilder.CreateIndex(
                name: "IX_AddedLists_SourceId_WorkId",
                table: "AddedLists",
                columns: new[] { "SourceId", "WorkId" });

            migrationBuilder.CreateIndex(
                name: "IX_TieSources_Address",
                table: "TieSources",
                column: "Address",
                unique: true);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "AddedLists");

            migrationBuilder.DropTable(
                name: "TieSources");
        }
    }
}
