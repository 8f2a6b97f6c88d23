<?php

declare(strict_types=1);

namespace App\Http\Ledger;

use App\Http\Describe\SaysWhatIsAsked;
use App\Http\Moment;
use Illuminate\Foundation\Http\FormRequest;

final class WhyInput extends FormRequest implements SaysWhatIsAsked
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['at' => ['nullable', new Moment], 'rule' => 'nullable|integer'];
    }

    public function meant(): array
    {
        return [
            'at' => 'A moment; left out, now.',
            'rule' => 'Of one rule only.',
        ];
    }
}
