using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Zendle.Store.Corpus.Migrations
{
    /// <inheritdoc />
    public partial class ResolvedReferences : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateTable(
                name: "ResolvedReferences",
                columns: table => new
                {
                    Name = table.Column<long>(type: "INTEGER", nullable: false),
                    WorkId = table.Column<int>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_ResolvedReferences", x => x.Name);
                });

            migrationBuilder.CreateIndex(
                name: "IX_ResolvedReferences_WorkId",
                table: "ResolvedReferences",
                column: "WorkId");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "ResolvedReferences");
        }
    }
}
