# A whole reading of a file beside the mixed models alone that it holds, fitted by lmerTest: for every number and every
# pair of clubs, the gap and the drift. Both as a process is timed from outside R, one after the other.
suppressMessages(library(lmerTest))
args <- commandArgs(TRUE)
cli <- args[1]
file <- args[2]
shots <- read.csv(file)
shots$round <- factor(shots$round)
shots$turn <- factor(shots$turn)
shots$order <- seq_len(nrow(shots))
numbers <- setdiff(names(shots), c("round", "turn", "build", "order"))
pairs <- combn(sort(unique(as.character(shots$build))), 2, simplify = FALSE)
fits <- function() {
  suppressWarnings(suppressMessages({
    for (number in numbers) {
      for (pair in pairs) {
        both <- shots[shots$build %in% pair, ]
        summary(lmer(reformulate(c("build", "round", "(1 | turn)"), number), both))$coefficients
      }
      summary(lmer(reformulate(c("build", "order", "(1 | turn)"), number), shots))$coefficients
    }
  }))
}
seconds <- function(run) system.time(run())[["elapsed"]]
reading <- function() system2(cli, c("judge", "--json", "--primary", "ball_speed_ms", file), stdout = FALSE, stderr = FALSE)
fits()
reading()
ours <- median(replicate(5, seconds(reading)))
theirs <- median(replicate(3, seconds(fits)))
cat(sprintf("%d numbers, %d pairs: the mixed models alone by lmerTest take %.1f times as long as the whole reading\n",
            length(numbers), length(pairs), theirs / ours))
