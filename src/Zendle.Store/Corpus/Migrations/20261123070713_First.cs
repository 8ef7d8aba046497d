using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Zendle.Store.Corpus.Migrations
{
    /// <inheritdoc />
    public partial class First : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateTable(
                name: "Databases",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    Name = table.Column<string>(type: "TEXT", nullable: false),
                    Description = table.Column<string>(type: "TEXT", nullable: false),
                    Address = table.Column<string>(type: "TEXT", nullable: false),
                    Format = table.Column<string>(type: "TEXT", nullable: false),
                    SetName = table.Column<string>(type: "TEXT", nullable: true),
                    Granularity = table.Column<string>(type: "TEXT", nullable: false),
                    Trust = table.Column<int>(type: "INTEGER", nullable: false),
                    HarvestedUntil = table.Column<string>(type: "TEXT", nullable: true),
                    HarvestedAt = table.Column<string>(type: "TEXT", nullable: true),
                    Token = table.Column<string>(type: "TEXT", nullable: true),
                    RunStarted = table.Column<string>(type: "TEXT", nullable: true),
                    RunDone = table.Column<int>(type: "INTEGER", nullable: false),
                    RunChanged = table.Column<int>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Databases", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "Evidence",
                columns: table => new
                {
                    First = table.Column<int>(type: "INTEGER", nullable: false),
                    Second = table.Column<int>(type: "INTEGER", nullable: false),
                    WorkId = table.Column<int>(type: "INTEGER", nullable: false),
                    Reason = table.Column<int>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Evidence", x => new { x.First, x.Second });
                });

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

            migrationBuilder.CreateTable(
                name: "Works",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    RedirectTo = table.Column<int>(type: "INTEGER", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Works", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "Records",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    DatabaseId = table.Column<int>(type: "INTEGER", nullable: false),
                    Identifier = table.Column<string>(type: "TEXT", nullable: false),
                    Datestamp = table.Column<string>(type: "TEXT", nullable: false),
                    Deleted = table.Column<bool>(type: "INTEGER", nullable: false),
                    WorkId = table.Column<int>(type: "INTEGER", nullable: false),
                    Sequence = table.Column<long>(type: "INTEGER", nullable: false),
                    Doi = table.Column<string>(type: "TEXT", nullable: true),
                    TitleKey = table.Column<long>(type: "INTEGER", nullable: false),
                    Year = table.Column<int>(type: "INTEGER", nullable: true),
                    Type = table.Column<int>(type: "INTEGER", nullable: false),
                    VersionDois = table.Column<string>(type: "TEXT", nullable: true),
                    Facts = table.Column<byte[]>(type: "BLOB", nullable: false),
                    References = table.Column<byte[]>(type: "BLOB", nullable: false),
                    ReferenceKeys = table.Column<byte[]>(type: "BLOB", nullable: false),
                    Source = table.Column<byte[]>(type: "BLOB", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Records", x => x.Id);
                    table.ForeignKey(
                        name: "FK_Records_Databases_DatabaseId",
                        column: x => x.DatabaseId,
                        principalTable: "Databases",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "IX_Databases_Address_SetName",
                table: "Databases",
                columns: new[] { "Address", "SetName" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_Evidence_WorkId",
                table: "Evidence",
                column: "WorkId");

            migrationBuilder.CreateIndex(
                name: "IX_RecordKeys_RecordId",
                table: "RecordKeys",
                column: "RecordId");

            migrationBuilder.CreateIndex(
                name: "IX_Records_DatabaseId_Identifier",
                table: "Records",
                columns: new[] { "DatabaseId", "Identifier" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_Records_Sequence",
                table: "Records",
                column: "Sequence");

            migrationBuilder.CreateIndex(
                name: "IX_Records_WorkId",
                table: "Records",
                column: "WorkId");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "Evidence");

            migrationBuilder.DropTable(
                name: "RecordKeys");

            migrationBuilder.DropTable(
                name: "Records");

            migrationBuilder.DropTable(
                name: "Works");

            migrationBuilder.DropTable(
                name: "Databases");
        }
    }
}
