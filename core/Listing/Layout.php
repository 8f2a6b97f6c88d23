<?php

declare(strict_types=1);

namespace VividLedger\Listing;

/** How a view lays its records out. */
enum Layout: string
{
    case Table = 'table';
    case Board = 'board';   // a column for each stage
}
