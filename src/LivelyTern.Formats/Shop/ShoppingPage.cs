using System.Globalization;
using System.Net;
using System.Security.Cryptography;
using System.Text;

namespace LivelyTern.Formats.Shop;

/// <summary>
/// A list as one page that needs nothing else: for a phone away from the household's network. It keeps its ticks in the phone's own memory,
/// and brings them home by a link.
/// </summary>
public static class ShoppingPage
{
    private const string Style = """
        :root{color-scheme:light dark;--ground:#faf8f2;--panel:#fff;--ink:#14213a;--soft:#56607a;--line:#d9d5c8;--sea:#1f6f6b}
        @media(prefers-color-scheme:dark){:root{--ground:#101827;--panel:#182236;--ink:#f2efe6;--soft:#b3bacb;--line:#33405c;--sea:#7cc9c2}}
        *{box-sizing:border-box}body{margin:0;background:var(--ground);color:var(--ink);font:18px/1.35 system-ui,sans-serif}
        main{max-width:34rem;margin:0 auto;padding:1rem}h1{font-size:1.35rem;margin:0 0 .25rem}h2{font-size:1rem;margin:1.25rem 0 .25rem}
        ul{list-style:none;margin:0;padding:0;border-top:1px solid var(--line)}li{border-bottom:1px solid var(--line)}
        label{display:flex;gap:.75rem;align-items:center;min-height:52px;padding:.4rem .25rem}
        input{width:26px;height:26px;flex:none;accent-color:var(--sea)}
        b{font-variant-numeric:tabular-nums}small{display:block;color:var(--soft)}
        input:checked+span{color:var(--soft);text-decoration:line-through}
        a{color:var(--sea);display:inline-block;padding:.9rem 0}p{color:var(--soft);margin:.25rem 0}
        @media print{a{display:none}}
        """;

    private const string Script = """
        (()=>{const place="tern.list."+document.body.dataset.list,boxes=[...document.querySelectorAll("input")];
        let kept={};try{kept=JSON.parse(localStorage.getItem(place))||{}}catch{}
        const left=document.getElementById("left"),home=document.getElementById("home");
        const show=()=>{left.textContent=boxes.filter(box=>!box.checked).length+" of "+boxes.length+" still to buy";
        if(home)home.href=home.dataset.at+"#ticks="+encodeURIComponent(JSON.stringify(kept))};
        for(const box of boxes){const said=kept[box.value];if(said)box.checked=said.t;
        box.addEventListener("change",()=>{kept[box.value]={t:box.checked,g:+box.dataset.grams,at:new Date().toISOString()};
        try{localStorage.setItem(place,JSON.stringify(kept))}catch{}show()})}show()})();
        """;

    /// <summary>Writes it.</summary>
    /// <param name="sheet">The list.</param>
    /// <param name="home">The household's own address, to bring the ticks to; null for none.</param>
    public static string Write(ShoppingSheet sheet, Uri? home)
    {
        ArgumentNullException.ThrowIfNull(sheet);
        var body = new StringBuilder();
        foreach (var aisle in sheet.Aisles)
        {
            body.Append(CultureInfo.InvariantCulture, $"<h2>{Safe(aisle.Name)}</h2>\n<ul>\n");
            foreach (var line in aisle.Lines) body.Append(Item(line));
            body.Append("</ul>\n");
        }

        // The list's own memory: another list keeps other ticks.
        var own = Convert.ToHexString(SHA256.HashData(Encoding.UTF8.GetBytes(sheet.Title + body)).AsSpan(0, 8));
        var at = home is null ? "" : Safe(home + "shop");
        var link = home is null ? "" : $"<a id=\"home\" data-at=\"{at}\" href=\"{at}\">Bring the ticks home</a>";
        var count = sheet.Aisles.Sum(aisle => aisle.Lines.Count);
        return $"""
            <!doctype html>
            <html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width,initial-scale=1">
            <title>{Safe(sheet.Title)}</title><style>
            {Style}
            </style></head><body data-list="{own}"><main>
            <h1>{Safe(sheet.Title)}</h1>
            <p id="left">{count} still to buy</p>
            {body}{link}
            </main><script>
            {Script}
            </script></body></html>

            """;
    }

    private static string Item(SheetLine line)
    {
        var amount = line.Amount.Length > 0 ? $"<b>{Safe(line.Amount)}</b> " : "";
        var note = line.Note.Length > 0 ? $"<small>{Safe(line.Note)}</small>" : "";
        var isTicked = line.IsTicked ? " checked" : "";
        return string.Create(
            CultureInfo.InvariantCulture,
            $"<li><label><input type=\"checkbox\" value=\"{Safe(line.Key)}\" data-grams=\"{line.Grams:0.###}\"{isTicked}>"
            + $"<span>{amount}{Safe(line.Name)}{note}</span></label></li>\n");
    }

    private static string Safe(string text) => WebUtility.HtmlEncode(text);
}
