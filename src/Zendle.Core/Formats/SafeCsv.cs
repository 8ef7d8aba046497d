using System.Globalization;
using CsvHelper;
using CsvHelper.Configuration;

namespace Zendle.Core.Formats;

/// <summary>Tables as comma-separated text (RFC 4180) that spreadsheets can open without obeying what stands in them.</summary>
public static class SafeCsv
{
    /// <summary>
    /// A writer of rows. The package escapes = + - @ and the control characters that spreadsheets obey, wherever they
    /// start a cell.
    /// </summary>
    /// <param name="to">Where the rows go; it is left open.</param>
    public static CsvWriter To(TextWriter to) =>
        new(
            to,
            new CsvConfiguration(CultureInfo.InvariantCulture)
            {
                InjectionOptions = InjectionOptions.Escape,
                NewLine = "\r\n",
            },
            leaveOpen: true
        );
}
