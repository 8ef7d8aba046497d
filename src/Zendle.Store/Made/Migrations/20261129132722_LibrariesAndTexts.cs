using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Zendle.Store.Made.Migrations
{
    /// <inheritdoc />
    public partial class LibrariesAndTexts : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "PartOf",
                table: "Texts",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<byte[]>(
                name: "Pages",
                table: "TextReadings",
                type: "BLOB",
                nullable: false,
                defaultValue: new byte[0]);

            migrationBuilder.AddColumn<int>(
                name: "LibraryId",
                table: "Attempts",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.CreateTable(
                name: "Libraries",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    Name = table.Column<string>(type: "TEXT", nullable: false),
                    Town = table.Column<string>(type: "TEXT", nullable: false),
                    Country = table.Column<string>(type: "TEXT", nullable: false),
                    Identifier = table.Column<string>(type: "TEXT", nullable: false),
                    HoldingsAddress = table.Column<string>(type: "TEXT", nullable: true),
                    Resolver = table.Column<string>(type: "TEXT", nullable: true),
                    ProxyPrefix = table.Column<string>(type: "TEXT", nullable: true),
                    SignIn = table.Column<int>(type: "INTEGER", nullable: false),
                    AuthorizeAddress = table.Column<string>(type: "TEXT", nullable: true),
                    TokenAddress = table.Column<string>(type: "TEXT", nullable: true),
                    Load = table.Column<int>(type: "INTEGER", nullable: false),
                    LoadedAt = table.Column<string>(type: "TEXT", nullable: true),
                    Lines = table.Column<int>(type: "INTEGER", nullable: false),
                    Unread = table.Column<int>(type: "INTEGER", nullable: false),
                    Faults = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Libraries", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "LibrarySessions",
                columns: table => new
                {
                    AccountId = table.Column<string>(type: "TEXT", nullable: false),
                    LibraryId = table.Column<int>(type: "INTEGER", nullable: false),
                    Secret = table.Column<byte[]>(type: "BLOB", nullable: false),
                    At = table.Column<string>(type: "TEXT", nullable: false),
                    EndsAt = table.Column<string>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_LibrarySessions", x => new { x.AccountId, x.LibraryId });
                    table.ForeignKey(
                        name: "FK_LibrarySessions_AspNetUsers_AccountId",
                        column: x => x.AccountId,
                        principalTable: "AspNetUsers",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "FK_LibrarySessions_Libraries_LibraryId",
                        column: x => x.LibraryId,
                        principalTable: "Libraries",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "UsedLibraries",
                columns: table => new
                {
                    AccountId = table.Column<string>(type: "TEXT", nullable: false),
                    LibraryId = table.Column<int>(type: "INTEGER", nullable: false),
                    Rank = table.Column<int>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_UsedLibraries", x => new { x.AccountId, x.LibraryId });
                    table.ForeignKey(
                        name: "FK_UsedLibraries_AspNetUsers_AccountId",
                        column: x => x.AccountId,
                        principalTable: "AspNetUsers",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "FK_UsedLibraries_Libraries_LibraryId",
                        column: x => x.LibraryId,
                        principalTable: "Libraries",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "IX_LibrarySessions_LibraryId",
                table: "LibrarySessions",
                column: "LibraryId");

            migrationBuilder.CreateIndex(
                name: "IX_UsedLibraries_LibraryId",
                table: "UsedLibraries",
                column: "LibraryId");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "LibrarySessions");

            migrationBuilder.DropTable(
                name: "UsedLibraries");

            migrationBuilder.DropTable(
                name: "Libraries");

            migrationBuilder.DropColumn(
                name: "PartOf",
                table: "Texts");

            migrationBuilder.DropColumn(
                name: "Pages",
                table: "TextReadings");

            migrationBuilder.DropColumn(
                name: "LibraryId",
                table: "Attempts");
        }
    }
}
