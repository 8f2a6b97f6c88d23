<?php

declare(strict_types=1);

namespace App\Http\Ledger;

use Illuminate\Foundation\Http\FormRequest;

final class EntryInput extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['entry' => 'required|integer'];
    }
}
