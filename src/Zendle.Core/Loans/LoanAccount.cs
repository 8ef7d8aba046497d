namespace Zendle.Core.Loans;

/// <summary>How often a reason was told.</summary>
/// <param name="Why">A code of ISO 18626; empty where none was told.</param>
/// <param name="Count">How often.</param>
public sealed record LoanReasonCount(string Why, int Count);

/// <summary>What requests cost in one currency.</summary>
/// <param name="Currency">Three letters (ISO 4217).</param>
/// <param name="Amount">The sum of what desks said they charged.</param>
public sealed record LoanSum(string Currency, decimal Amount);

/// <summary>Requests for loans counted, for the report. Asked = supplied + in vain + open.</summary>
/// <param name="Asked">Requests made.</param>
/// <param name="Works">Works they were made for.</param>
/// <param name="Supplied">Requests that were supplied.</param>
/// <param name="InVain">Requests that ended without the item.</param>
/// <param name="Open">Requests that something is still to come of.</param>
/// <param name="Unfilled">In vain, by reason; those taken back under "Cancelled".</param>
/// <param name="Costs">What they did cost, by currency.</param>
public sealed record LoanAccount(
    int Asked,
    int Works,
    int Supplied,
    int InVain,
    int Open,
    IReadOnlyList<LoanReasonCount> Unfilled,
    IReadOnlyList<LoanSum> Costs
)
{
    /// <summary>Counts. O(requests).</summary>
    /// <param name="requests">The work of each request, and how it stands.</param>
    public static LoanAccount Of(IReadOnlyCollection<(int Work, LoanState State)> requests)
    {
        var vain = requests.Where(r => r.State.Status.IsVain()).ToArray();
        return new(
            requests.Count,
            requests.Select(r => r.Work).Distinct().Count(),
            requests.Count(r => r.State.Status.IsSupplied()),
            vain.Length,
            requests.Count(r => r.State.Status.IsOpen()),
            [
                .. vain.CountBy(r => r.State.Status == LoanStatus.Cancelled ? "Cancelled" : r.State.Why ?? "")
                    .Select(c => new LoanReasonCount(c.Key, c.Value))
                    .OrderByDescending(c => c.Count)
                    .ThenBy(c => c.Why, StringComparer.Ordinal),
            ],
            [
                .. requests
                    .Select(r => r.State.Cost)
                    .OfType<LoanCost>()
                    .GroupBy(c => c.Currency)
                    .Select(g => new LoanSum(g.Key, g.Sum(c => c.Amount)))
                    .OrderBy(s => s.Currency, StringComparer.Ordinal),
            ]
        );
    }
}
