<?php

declare(strict_types=1);

namespace App\Http\Ledger;

use App\Http\Describe\SaysWhatIsAsked;

final class LedgerInput extends LedgerFileInput implements SaysWhatIsAsked
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'text' => 'nullable|string|max:200|prohibits:after', 'before' => 'nullable|integer|min:0',
            'after' => 'nullable|integer|min:0|prohibits:before',
        ] + parent::rules();
    }

    public function meant(): array
    {
        return parent::meant() + [
            'before' => 'Only entries with a lower number.',
            'after' => 'Only entries with a higher number, the lowest first.',
        ];
    }
}
