/** What `lantern --help` prints; the launcher prints the same text. */
export const HELP = `Usage: ./lantern COMMAND

  start [--port N] [--empty] [--reset-demo]   make everything ready and serve the application with the demo data
  backup FILE  |  restore FILE [--replace]    everything in one file, while it runs; and back
  test [unit|browser]                         make everything ready and run every test

  read BOARD --mode M --red NET --black NET [--fault F]…   what the meter shows
      M: diode ohms continuity esr cap ring; on a unit under power dcv acv ripple freq, with --powered --facts FILE
      [--source V] [--load none|half|full]
  read BOARD --requests FILE.jsonl                         one request a line
  expect BOARD [--state cold|hot] [--facts FILE] [--source V] [--load L] [--fault F]… [--readings FILE]
                                                           what every point should read
  diagnose BOARD --readings FILE.csv [--symptom S]… [--observe KEY]… [--instruments esr,cap,ring] [--facts FILE]
                                                     (columns mode,red,black,value and, under power, source,load;
                                                     keys such as lamp-dim, hiccup-ticking, sags-at-load, hot:R5;
                                                     instruments beside the meter that are planned with)
                                                           suspects, next reading, permit to power
  decode MARK [--kind K]  |  decode --requests FILE.jsonl  what a marking may mean, most likely first
  stages BOARD                                             stages, pin roles, topology, islands
  draw BOARD [--svg FILE]                                  the schematic on one sheet, with its figures
  rate BOARD [--facts FILE] [--source V]                   stress of each part against its rating, usable output
  sum NAME key=value…  |  sum --list  |  sum --requests FILE.jsonl
  bench [--board NAME] [--faults N]                        the benchmark table
  fuzz [--minutes N] [--seed S]                            generated attacks on every reader and log, fresh seeds
  torture [--kills N] [--seed S]                           server and database killed while clients write; fifty at once

BOARD is a board netlist (.cir) or the application's own board JSON. --json prints one JSON document.
Exit status: 0 done; 1 could not be done; 2 unusable arguments.`;
