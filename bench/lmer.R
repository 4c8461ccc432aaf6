# The two mixed models of the benchmark twoMixedModels, fitted by lmerTest from the same shots.
suppressMessages(library(lmerTest))
shots <- read.csv(commandArgs(TRUE)[1])
shots$round <- factor(shots$round)
shots$turn <- factor(shots$turn)
fit <- function() {
  suppressMessages({
    plain <- lmer(ball_speed_ms ~ build + round + (1 | turn), shots)
    equal <- lmer(ball_speed_ms ~ build + round + club_speed_ms + (1 | turn), shots)
    summary(plain)$coefficients
    summary(equal)$coefficients
  })
}
invisible(fit())
times <- replicate(10, system.time(fit())[["elapsed"]])
cat(sprintf("lmerTest, two mixed models: %.1f ms (median of 10)\n", 1000 * median(times)))
