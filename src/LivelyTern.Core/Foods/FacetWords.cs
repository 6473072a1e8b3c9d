namespace LivelyTern.Core.Foods;

/// <summary>What a facet of a food is about.</summary>
public enum FacetAxis
{
    /// <summary>Raw, dry, cooked, canned, frozen, fresh: what was done to it before it is weighed.</summary>
    Form,

    /// <summary>How fat or lean it is, in words.</summary>
    Fat,

    /// <summary>Sweetened, or without sugar.</summary>
    Sweetening,

    /// <summary>Salted, unsalted, with less salt.</summary>
    Salt,

    /// <summary>What it lies in: oil, water, juice, syrup, tomato.</summary>
    PackedIn,

    /// <summary>With its skin or bone, or without.</summary>
    Skin,
}

/// <summary>One facet that words name: "tinned" is canned in form, "semi-skimmed" is light in fat.</summary>
/// <param name="Axis">What it is about.</param>
/// <param name="Value">Its value, a word of <see cref="FacetWords"/>.</param>
public readonly record struct Facet(FacetAxis Axis, string Value);

/// <summary>What the words of a line are to it. One word or several in a row, in lower case, singular and without hyphens.</summary>
internal static class FacetWords
{
    /// <summary>The longest row of words that has a meaning of its own.</summary>
    public const int Longest = 4;

    private static readonly Dictionary<string, Facet> Facets = Of(
        (FacetAxis.Form, "raw", "raw,uncooked,unbaked,raw weight,uncooked weight"),
        (FacetAxis.Form, "dry", "dry,dried,dehydrated,dry weight"),
        (FacetAxis.Form, "cooked", "cooked,cooked weight,precooked,pre cooked,ready cooked,ready to eat,ready to use,made up"),
        (FacetAxis.Form, "boiled", "boiled,steamed,poached,simmered,hard boiled,soft boiled,stewed,braised,microwaved"),
        (FacetAxis.Form, "roasted", "roasted,roast,baked,grilled,broiled,chargrilled,barbecued,air fried,rotisserie,griddled"),
        (FacetAxis.Form, "fried", "fried,deep fried,pan fried,sauteed,stir fried"),
        (FacetAxis.Form, "canned", "canned,tinned,jarred,from a can,from a tin"),
        (FacetAxis.Form, "frozen", "frozen"),
        (FacetAxis.Form, "fresh", "fresh"),
        (FacetAxis.Fat, "free",
            "fat free,nonfat,non fat,no fat,skim,skimmed,zero fat,virtually fat free,fat free skimmed"),
        (FacetAxis.Fat, "low", "low fat,lowfat"),
        (FacetAxis.Fat, "light",
            "light,lite,lighter,reduced fat,half fat,part skim,semi skimmed,lower fat,less fat,reduced calorie,low calorie,1 cal,"
            + "fat reduced"),
        (FacetAxis.Fat, "full", "full fat,whole milk,full cream,regular fat"),
        (FacetAxis.Fat, "lean", "lean"),
        (FacetAxis.Fat, "leanest", "extra lean,very lean,super lean"),
        (FacetAxis.Sweetening, "free",
            "sugar free,no added sugar,no sugar added,without sugar,without added sugar,no sugar,reduced sugar,low sugar,zero sugar,diet,"
            + "zero calorie"),
        (FacetAxis.Sweetening, "un", "unsweetened"),
        (FacetAxis.Sweetening, "sweet", "sweetened"),
        (FacetAxis.Salt, "low",
            "low salt,low sodium,reduced salt,reduced sodium,less salt,less sodium,lower salt,lower sodium,no salt added,no added salt,"
            + "salt free,sodium free"),
        (FacetAxis.Salt, "un", "unsalted"),
        (FacetAxis.Salt, "salted", "salted"),
        (FacetAxis.PackedIn, "water", "in water,in spring water,in springwater,in brine,packed in water,water packed,in salted water"),
        (FacetAxis.PackedIn, "oil", "in oil,in olive oil,in sunflower oil,packed in oil,oil packed"),
        (FacetAxis.PackedIn, "juice", "in juice,in natural juice,in own juice,in fruit juice"),
        (FacetAxis.PackedIn, "syrup", "in syrup,in light syrup,in heavy syrup"),
        (FacetAxis.PackedIn, "tomato", "in tomato sauce,in tomato"),
        (FacetAxis.Skin, "off", "skinless,without skin,no skin,skin off,skinned,skin removed"),
        (FacetAxis.Skin, "on", "skin on,with skin"),
        (FacetAxis.Skin, "bone", "bone in,with bone,on the bone"),
        (FacetAxis.Skin, "boneless", "boneless,bone removed"));

    // Said of how a thing is sold, kept, cut or treated; its figures are much the same with and without. Where a food's own name has the
    // word ("baby carrots") it tells that food from another.
    private static readonly HashSet<string> Describing = Set(
        "free range,organic,baby,mini,large,medium,small,extra large,big,jumbo,tiny,little,thick,thin,thick cut,medium size,medium sized,"
        + "large size,small size,bite size,bite sized,good quality,quality,best quality,good,nice,fine,finely,coarse,coarsely,roughly,"
        + "rough,"
        + "thinly,thickly,very,lightly,loosely,tightly,firmly,gently,well,freshly,newly,slightly,ripe,very ripe,overripe,firm ripe,juicy,"
        + "seedless,deseeded,de seeded,seeded,pitted,stoned,unpitted,cored,hulled,shelled,unshelled,deveined,peeled,unpeeled,peel on,cold,"
        + "warm,warmed,chilled,cool,cooled,thawed,defrosted,room temperature,at room temperature,softened,melted,boiling,lukewarm,"
        + "grass fed,"
        + "wild caught,wild,farmed,sustainable,homemade,home made,store bought,shop bought,leftover,left over,prepared,"
        + "ready made,extra,virgin,extra virgin,pure,real,natural,plain,regular,ordinary,standard,normal,traditional,classic,original,"
        + "whole,halved,quartered,half,sliced,slice,chopped,diced,cubed,cube,shredded,grated,crumbled,crumble,torn,minced,mashed,crushed,"
        + "pureed,ground,cracked,flaked,slivered,julienned,matchstick,spiralized,spiralised,spiraled,riced,trimmed,cleaned,washed,"
        + "rinsed,drained,"
        + "undrained,patted dry,squeezed,squeezed dry,strained,sifted,sieved,beaten,whisked,separated,packed,lightly packed,heaped,heaping,"
        + "level,scant,rounded,generous,piece,chunk,wedge,ring,strip,floret,floweret,leaf,stalk,stick,spear,fillet,clove,sprig,stem,head,"
        + "bunch,kernel,segment,half,crown,heart,steak cut,cut,boned,tied,rolled up,flat leaf,curly,english style,style,type,kind,"
        + "sharp,extra sharp,mature,extra mature,vintage,medium sharp,mild,aged,young,tender,crisp,crispy,tart,tangy,smooth,creamy,"
        + "thick set,"
        + "runny,set,clear,quick cook,flaky,all natural,of choice,favourite,favorite,your favourite,your favorite,optional,divided,"
        + "heated,hot,"
        + "toasted,roasted and,blanched,soaked,sprouted,unbleached,bleached,enriched,iodised,iodized,table,cooking,easy cook,"
        + "spooned and leveled,spooned,leveled,levelled,squeezed out,individual,single,average,unflavored,unflavoured,nonstick,non stick,"
        + "boneless skinless,center cut loin,on the vine,vine ripened,vine,mixed size,assorted,each,100%,low moisture,grain fed,"
        + "corn fed,unwaxed,waxed,scrubbed,unsifted,loose,bag,bagged,prewashed,pre washed,ready to cook,deli,sandwich style,family,value,"
        + "fat trimmed,trimmed of fat,fat removed,visible fat removed,stewing,braising,frying,bottled,carton,from a carton,boxed,"
        + "green and white,"
        + "white and green,white and green part,part,portion,serving");

    // Two ways to say one thing; the words that the built-in names have come last.
    private static readonly Dictionary<string, string[]> Meant = Pairs(
        "yoghurt=yogurt,yog=yogurt,parm=parmesan,courgetti=courgette,zoodle=courgette,tom=tomato,flax=flaxseed,broth=stock,"
        + "chilly=chilli,chilie=chilli,chili=chilli,chile=chilli,chily=chilli,"
        + "whole wheat=wholemeal,wholewheat=wholemeal,wholegrain=wholemeal,"
        + "whole grain=wholemeal,all purpose=plain flour,zucchini=courgette,eggplant=aubergine,scallion=spring onion,"
        + "green onion=spring onion,"
        + "salad onion=spring onion,cilantro=coriander,garbanzo=chickpea,garbanzo bean=chickpea,chick pea=chickpea,arugula=rocket,"
        + "shrimp=prawn,"
        + "soy=soya,rutabaga=swede,beet=beetroot,pitta=pita,cornstarch=corn starch,corn flour=corn starch,cornflour=corn starch,"
        + "catsup=ketchup,"
        + "veg=vegetable,veggie=vegetable,self rising=self raising,fiber=fibre,high fiber=high fibre,choc=chocolate,bbq=barbecue,"
        + "barbeque=barbecue,romano=pecorino,confectioner=icing,sour milk=buttermilk,bicarb=baking soda,mince=minced,"
        + "tomatoe=tomato,potatoe=potato,mozarella=mozzarella,parmesean=parmesan,brocolli=broccoli,linseed=flaxseed,flax seed=flaxseed,"
        + "gelatine=gelatin,doughnut=donut,mayo=mayonnaise,semisweet=semi sweet,kiwifruit=kiwi,applesauce=apple sauce,"
        + "bean sprout=beansprout,"
        + "caramelized=caramelised,flavored=flavoured,unflavored=unflavoured,center=centre,jalepeno=jalapeno,sweetcorn=corn,"
        + "sweet corn=corn,"
        + "capsicum=pepper,bell pepper=pepper,stock pot=stock cube,bouillon cube=stock cube,broth cube=stock cube,lasagna=lasagne,"
        + "macaroni pasta=macaroni,mackeral=mackerel,spring roll wrapper=rice paper,icing sugar=icing sugar,"
        + "powdered sugar=icing sugar,confectioner sugar=icing sugar");

    // Words that tell nothing.
    private static readonly HashSet<string> Stopping = Set("of,the,and,a,an,with,in,on,some,any,its,their,own,other,few,to,from");

    // Rows of words that look like a describing word and are none: what they name is a food of its own.
    private static readonly HashSet<string> Names = Set(
        "hot sauce,hot dog,hot chocolate,sandwich thin,bagel thin,baking mix,salad cream,salad dressing,salad leaf,salad green,"
        + "heart of palm,"
        + "egg substitute,crescent roll,rich tea,wheat biscuit,biscuit mix,baking soda,baking powder,cooking spray,cooking cream,"
        + "cooking wine,"
        + "cooking sherry,table cream,seed mix,light corn syrup,light treacle,light brown sugar,light muscovado sugar,light soya sauce,"
        + "cottage cheese,fish stick,string cheese,crab stick,surimi stick,bran stick,wheat bran stick,stuffing mix,soup mix,"
        + "chicken strip,beef strip,hot chilli sauce,stock cube,clear whey,low carb,high fibre,high protein,gluten free,dairy free,"
        + "lactose free,egg free,meat free,alcohol free,plant based,bottled water,salt flake,real bacon bit,mixed leaf,lime leaf,"
        + "curry leaf,"
        + "vine leaf,bay leaf,cheese slice,processed cheese slice,single cream,half cream,half and half,half half,"
        + "clove ground,ground clove,chilli flake,cooking chorizo,cooking apple,whipped cream,cream cracker,"
        + "stock powder,hash brown,taco shell,potato flake,coconut flake,bran flake,rye flake,oat flake,corn chip,"
        + "banana chip,rice cake,fish cake,ice cream,ice cube,prepared mustard,english mustard,english muffin,crisp bread,dried fruit,"
        + "mixed dried fruit,sugar cube,whole chicken,mini tortilla,mini wrap");

    // What a food is a kind of: cooks add it to its name or leave it out.
    private static readonly HashSet<string> Kinds = Set("cheese,fish,meat,vegetable,fruit,bread,nut,seed");

    // Seasonings of these nouns are poured or spooned, not pinched.
    private static readonly HashSet<string> Poured = Set(
        "sauce,vinegar,stock,wine,paste,juice,ketchup,mustard,amino,tamari,glaze,gravy,salsa,soup,chutney,relish,miso,extract,syrup,"
        + "sherry,mirin,"
        + "water,coffee,tea,beer,cider,spirit,cola,lemonade,squash,drink,cube,espresso,port,lager,stout,aioli,horseradish,broth");

    /// <summary>Whether what is called so is poured or spooned.</summary>
    public static bool IsPoured(string noun) => Poured.Contains(noun);

    private static readonly HashSet<string> Beginnings =
        Facets.Keys.Concat(Describing).Concat(Meant.Keys).Concat(Names).Where(row => row.Contains(' ', StringComparison.Ordinal))
            .Select(row => row[..row.IndexOf(' ', StringComparison.Ordinal)]).ToHashSet(StringComparer.Ordinal);

    /// <summary>Whether a row of several words begins with this one.</summary>
    public static bool IsBeginning(string word) => Beginnings.Contains(word);

    /// <summary>Whether a word says what kind of food it is, "cheese" of "mozzarella cheese".</summary>
    public static bool IsKind(string word) => Kinds.Contains(word);

    /// <summary>The facet that these words name, or null.</summary>
    public static Facet? FacetOf(string words) => Facets.TryGetValue(words, out var facet) ? facet : null;

    /// <summary>Whether they describe without changing the figures.</summary>
    public static bool IsDescribing(string words) => Describing.Contains(words);

    /// <summary>Whether they are among those that tell nothing, "of".</summary>
    public static bool IsStopping(string word) => Stopping.Contains(word);

    /// <summary>Whether they stand together for one thing, though one of them alone would only describe.</summary>
    public static bool IsName(string words) => Names.Contains(words);

    /// <summary>The words that mean the same and that foods are named by, or null.</summary>
    public static IReadOnlyList<string>? MeantBy(string words) => Meant.GetValueOrDefault(words);

    private static Dictionary<string, Facet> Of(params (FacetAxis Axis, string Value, string Words)[] rows) =>
        rows.SelectMany(row => Split(row.Words).Select(words => (words, facet: new Facet(row.Axis, row.Value))))
            .ToDictionary(pair => pair.words, pair => pair.facet, StringComparer.Ordinal);

    private static HashSet<string> Set(string words) => Split(words).ToHashSet(StringComparer.Ordinal);

    private static Dictionary<string, string[]> Pairs(string rows)
    {
        var pairs = new Dictionary<string, string[]>(StringComparer.Ordinal);
        foreach (var row in Split(rows))
        {
            var at = row.IndexOf('=', StringComparison.Ordinal);
            pairs[row[..at]] = row[(at + 1)..].Split(' ');
        }

        return pairs;
    }

    private static string[] Split(string words) => words.Split(',', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries);
}
