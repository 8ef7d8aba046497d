using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Zendle.Store.Made.Migrations
{
    /// <inheritdoc />
    public partial class TextReadings : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateTable(
                name: "TextReadings",
                columns: table => new
                {
                    Hash = table.Column<string>(type: "TEXT", nullable: false),
                    Version = table.Column<int>(type: "INTEGER", nullable: false),
                    References = table.Column<byte[]>(type: "BLOB", nullable: false),
                    Citations = table.Column<byte[]>(type: "BLOB", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_TextReadings", x => x.Hash);
                });
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "TextReadings");
        }
    }
}
