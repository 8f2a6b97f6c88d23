<?php

declare(strict_types=1);

namespace App\Models;

/** With whom a view is shared. */
enum Shared: string
{
    case Nobody = 'nobody';
    case Team = 'team';
    case Everybody = 'everybody';
}
