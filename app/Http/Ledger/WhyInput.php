<?php

declare(strict_types=1);

namespace App\Http\Ledger;

use App\Http\Moment;
use Illuminate\Foundation\Http\FormRequest;

final class WhyInput extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['at' => ['nullable', new Moment], 'rule' => 'nullable|integer'];
    }
}
