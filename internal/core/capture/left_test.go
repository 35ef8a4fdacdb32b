package capture_test

import (
	"strings"
	"testing"

	"tincup/internal/core/capture"
)

// What must not be read, by the rule that says so, with what is offered all the same: "field
// words", several parted by semicolons. Tuesday 24 November 2026, 09:00.
var leftTables = []struct {
	name string
	rows []row
}{
	{"rule 6: dates after for, to, about, or, from … to", []row{
		{"Bake two trays for Saturday", "due Saturday"},
		{"Sand the deck for Sunday lunch", "due Sunday"},
		{"Quote for the 14 December wedding", ""},
		{"Draft the notice to Monday's tenants", ""},
		{"Push the inspection to Tuesday", "due Tuesday"},
		{"Move the boiler service to next week", "plan next week"},
		{"Ask the vet about Thursday", "due Thursday"},
		{"Talk to Lena about tomorrow", "due tomorrow"},
		{"Call the crew Monday or Tuesday", "due Monday; due Tuesday"},
		{"Deliver Friday or Saturday morning", "due Friday; due Saturday morning"},
		{"Rent the van from Friday to Sunday", "start from Friday; due Sunday"},
		{"Stay open from 9am to 5pm", "plan from 9am to 5pm"},
		{"Guard the site from 3 to 5 December", "due 5 December"},
		{"Order cut flowers for tonight", "due tonight"},
		{"Book the hall for 6 January at 7pm", "due 6 January at 7pm"},
		{"Reserve a table for tomorrow at 8", "due tomorrow at 8"},
		{"Print menus for next Friday", "due next Friday"},
		{"Send regards to May", ""},
		{"Think about Easter", ""},
		{"Look for the March figures", ""},
	}},
	{"rule 6: what is asked or depends", []row{
		{"Ask who is on call tonight", "due tonight"},
		{"Find out when the ferry leaves tomorrow", "due tomorrow"},
		{"Check whether the lab opens Saturday", "due Saturday"},
		{"Note how the dough looks tomorrow", "due tomorrow"},
		{"Tell me where the crew eats Friday", "due Friday"},
		{"See why the pump stopped yesterday", ""},
		{"Ring if the fever is back tomorrow", "due tomorrow"},
		{"Leave early unless it snows tonight", "due tonight"},
		{"Start once the paint is dry Monday", "due Monday"},
		{"Choose which coat to wear Sunday", "due Sunday"},
		{"Confirm that the flight lands tomorrow", "due tomorrow"},
		{"Remember what Ida said Tuesday", "due Tuesday"},
		{"Ask how the audition went Thursday", "due Thursday"},
		{"Check if anyone is free this weekend", "due this weekend"},
	}},
	{"rule 6: in the middle of a title", []row{
		{"Email the printer by Friday about bleed", "due by Friday"},
		{"Ring Oskar tomorrow about the roof", "due tomorrow"},
		{"Collect the order on Monday from the mill", "due on Monday"},
		{"Take the dog at 5pm to the vet", "due at 5pm"},
		{"Tell the class on Tuesday what to bring", "due on Tuesday"},
		{"Swap the filters by 3 December in room two", "due by 3 December"},
		{"Sketch the logo tonight with chalk", "due tonight"},
		{"Meet the tutor at noon by the gate", "due at noon"},
		{"Return the drill by Monday to the library", "due by Monday"},
		{"Ask Lena by Thursday for the keys", "due by Thursday"},
		{"Show the flat at 4pm to both couples", "due at 4pm"},
		{"Bring the samples tomorrow to the lab", "due tomorrow"},
	}},
	{"rule 6: months and seasons alone", []row{
		{"Write May invitations", ""},
		{"Review March spending", ""},
		{"Plant out April seedlings", ""},
		{"File the June receipts", ""},
		{"Look through August photos", ""},
		{"Visit June", ""},
		{"Ask April", ""},
		{"Invite April and June", ""},
		{"Sort out December", ""},
		{"Prune in autumn", ""},
		{"Service the mower this spring", ""},
		{"Knit for winter", ""},
	}},
	{"rule 6: capitals that name something", []row{
		{"Read the Tomorrow column", ""},
		{"Finish the poem Today for class", "due Today"},
		{"Watch the Tonight show", ""},
		{"Sing Yesterday at the club", ""},
		{"Play Friday I am in Love", "due Friday"},
		{"Sew the Sunday Best collection", ""},
		{"Frame the Monday Club photo", ""},
		{"File Good Friday leaflets", ""},
		{"Order for Ash Wednesday", ""},
		{"Shop on Black Friday", ""},
		{"Prepare for Palm Sunday", ""},
		{"Cook for Shrove Tuesday", ""},
		{"Post about Cyber Monday", ""},
		{"Paint the sign for Boxing Day", ""},
		{"Repair the Evening Star model", ""},
		{"Restore the Night Watch print", ""},
	}},
	{"rule 6: small words with another sense", []row{
		{"Where the cat sat", ""},
		{"Open the curtains for the sun", ""},
		{"See what the council may do", ""},
		{"Choose vows before we wed", ""},
		{"Do not mar the finish", ""},
		{"Watch the sun", ""},
		{"Say what you may", ""},
		{"Where she sat", ""},
		{"Cards for those who wed", ""},
		{"Wipe the mar", ""},
		{"Let the dog out to sun", ""},
		{"Move to where he sat", ""},
	}},
	{"rule 6: the Nth, sizes and ratios", []row{
		{"Buy the bust of Henry the 8th", "due the 8th"},
		{"Read about Elizabeth the 2nd", "due the 2nd"},
		{"Mix mortar 4/1", "due 4/1"},
		{"Cut the board 3/4", "due 3/4"},
		{"Drill holes 5/8", "due 5/8"},
		{"Score it 7/10", "due 7/10"},
		{"Offer support 24/7", "due 24/7"},
		{"Tune to 11/12", "due 11/12"},
		{"Split the bill 1/2", "due 1/2"},
		{"Grade the essay 9/10", "due 9/10"},
		{"Order bolts 3/8", "due 3/8"},
		{"Rate the hotel 4/5", "due 4/5"},
	}},
	{"rule 6: not even offered behind of, the, a, last, since, than", []row{
		{"Sort photos of last Friday", ""},
		{"Minutes of Monday", ""},
		{"Queue since Tuesday", ""},
		{"Later than Thursday", ""},
		{"Discuss the Friday list", ""},
		{"Plan a Sunday roast", ""},
		{"Wait since 3 December", ""},
		{"Compare with the Tuesday run", ""},
		{"Tidy after a Saturday market", ""},
		{"Write up the 5pm shift", ""},
		{"Report of 12 November", ""},
		{"More than 20 min", ""},
	}},
	{"rule 7: all or nothing", []row{
		{"Plant out 3 days after Easter Monday", ""},
		{"Call back tmrw 3ish", "due tmrw"},
		{"Ring Ada at 8am and 6pm", "due at 8am; due 6pm"},
		{"Give drops at 7am or 9pm", "due at 7am; due 9pm"},
		{"Practice every 2 hours", ""},
		{"Stretch every 30 minutes", ""},
		{"Check the oven every half hour", ""},
		{"Pay two weeks after the audit", ""},
		{"Leave 10 days after the storm", ""},
		{"Report 4 weeks before launch", ""},
		{"Bake until golden", ""},
		{"Simmer for 20 min", "estimate 20 min"},
		{"Hold for 3 days", ""},
		{"Wait until noon strikes", ""},
		{"Sing the 2nd of every set", "due the 2nd"},
		{"Every 5 steps take a photo", ""},
		{"Every other chair needs glue", ""},
		{"Water weekly pots", "repeat weekly"},
		{"Send the daily specials", ""},
		{"Update yearly totals by hand", "repeat yearly"},
	}},
	{"rule 8: a series is none", []row{
		{"Plan menus: Monday, Tuesday, Wednesday", ""},
		{"Shifts Monday, Tuesday, Friday", ""},
		{"Compare paints, low, medium, high", ""},
		{"Sort prices: high, medium, low", ""},
		{"Invite Jo, Sam, April", ""},
		{"Ask Ida, June, Max", ""},
		{"Test lamps, 10 min, 20 min, 30 min", ""},
		{"Label jars, 2025, 2026", ""},
		{"Rehearse acts, Friday, Saturday", ""},
		{"Order sizes, medium, high", ""},
	}},
	{"rule 9: quotes protect", []row{
		{"Read “Tomorrow at noon”", ""},
		{"Print “by Friday” on it", ""},
		{"Paint “every Monday” on the door", ""},
		{"Type “#calls” on the label", ""},
		{"Sign “in Choir”", ""},
		{"Spell “31 February”", ""},
	}},
	{"rule 10: what is no tag", []row{
		{"Fix issue#12", ""},
		{"Pay invoice # 7", ""},
		{"Sort C# books", ""},
		{"Call room #12", ""},
		{"Move crate #3", ""},
		{"Draw a # sign", ""},
	}},
	{"rules 2 and 3: a clause that is not made of fields stays", []row{
		{"Order paint, the blue one", ""},
		{"Feed the hens, then lock up tomorrow night maybe", "due tomorrow night"},
		{"Ring the school, high time", ""},
		{"Pack the car, lights first", ""},
		{"Mend the net, low tide only", ""},
		{"Call the bank, second try", ""},
		{"Buy rope, 20 metres", ""},
		{"Boil eggs, 6 minutes for soft", ""},
		{"Climb the wall, left side", ""},
		{"Practice scales, slowly", ""},
		{"Read chapter 4, aloud", ""},
		{"Set the shelf high", "priority high"},
		{"Turn the music low", "priority low"},
		{"Keep the flame medium", "priority medium"},
		{"Swim 20 min", "estimate 20 min"},
		{"Row for an hour", "estimate an hour"},
		{"Walk 3h", "estimate 3h"},
		{"Sit in Choir", "list in Choir"},
		{"Hang it in Allotment", "list in Allotment"},
	}},
	{"rule 5: starts that are none", []row{
		{"On balance, sell the boat", ""},
		{"By hand wash the wool", ""},
		{"This old chair needs glue", ""},
		{"Next door wants the ladder", ""},
		{"Every lamp needs oil", ""},
		{"Each child brings a cup", ""},
		{"Today's bread", ""},
		{"Tomorrow's lesson", ""},
		{"Friday's market", ""},
		{"Remind Ida of the key", ""},
		{"Ask around", ""},
		{"Ask for the bill", ""},
		{"Waiting room chairs", ""},
		{"Waiting for spring", ""},
		{"Notes for the talk", ""},
		{"Highlights of the year", ""},
		{"Lowlands map", ""},
		{"Urgent care number", ""},
		{"Daily bread", "repeat Daily"},
		{"Weekly shop", "repeat Weekly"},
		{"Plan B", ""},
		{"Plan the route", ""},
	}},
	{"rule 11 and 13: a word has one meaning", []row{
		{"Monday Monday Monday", "due Monday; due Monday; due Monday"},
		{"noon at noon by noon or so", "due at noon; due by noon"},
		{"high high hopes", ""},
	}},
	{"rule 15: names nobody has, in small letters or behind other words", []row{
		{"Set lamps, in the cellar", ""},
		{"Ring the clerk, ask for a refund", ""},
		{"Wait, waiting for rain", ""},
		{"Sow seed, in rows", ""},
		{"Cook, with butter", ""},
		{"Sing, for fun", ""},
		{"Work in Garden", ""},
		{"Ask about Ines", ""},
	}},
}

func TestLeftAlone(t *testing.T) {
	env := at(tuesday)
	n := 0
	for _, table := range leftTables {
		t.Run(table.name, func(t *testing.T) {
			for _, row := range table.rows {
				n++
				for _, sentence := range []string{row.sentence, row.sentence + "."} {
					d := capture.Read(sentence, env)
					if got, want := d.Title, strings.NewReplacer("“", "", "”", "").Replace(sentence); got != want || len(d.Chips)+len(d.Problems) > 0 {
						t.Errorf("%q reads %s", sentence, brief(d))
					}
					checkDraft(t, sentence, d, env)
				}
				var offers []string
				for _, o := range capture.Offers(row.sentence, env) {
					offers = append(offers, string(o.Field)+" "+o.Words)
				}
				if got := strings.Join(offers, "; "); got != row.want {
					t.Errorf("%q offers %q; want %q", row.sentence, got, row.want)
				}
			}
		})
	}
	t.Logf("%d sentences", n)
}
