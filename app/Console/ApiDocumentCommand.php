<?php

declare(strict_types=1);

namespace App\Console;

use App\Http\Describe\Document;
use Illuminate\Console\Command;

/** Writes the description of the API from the attributes of the code. */
final class ApiDocumentCommand extends Command
{
    protected $signature = 'ledger:openapi';

    protected $description = 'Write docs/openapi.json';

    public function handle(): int
    {
        file_put_contents(base_path('docs/openapi.json'), Document::json());

        return self::SUCCESS;
    }
}
