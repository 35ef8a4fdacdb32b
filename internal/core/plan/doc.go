// Package plan reckons whether work fits into the hours there are: how full each day is,
// whether every due can be met, what has to give where not, and how a week is best spread.
//
// [Capacity] is the hours that a person has, day by day, less what events take of them.
// [Job] is a piece of work with its minutes, the moment from which it can be done, and its
// deadline. All reckoning is in whole minutes of capacity: the time from now to a deadline
// counts only the minutes in which there is work time, so that nights, meetings and
// changes of the clock are out of the way before anything is compared.
//
// One person works on one thing at a time and may put it down and take it up again. For
// that, working on the earliest deadline first is as good as anything can be (J. R.
// Jackson, 1955; with later starts W. A. Horn, “Some simple scheduling algorithms”, 1974),
// which makes [Problem.Feasible] exact. Which deadlines to let go of is exact without later
// starts and chains (E. L. Lawler and J. M. Moore, 1969), and with them for a bounded
// number of jobs; [Problem.Give] says whether its answer is proved.
package plan
