"""Reports: a week or a block on one page, for the coach's file or for the athlete's hand."""
