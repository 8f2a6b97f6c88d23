<?php

declare(strict_types=1);

namespace App\Http\Records;

use Illuminate\Foundation\Http\FormRequest;

final class BinInput extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['before' => 'nullable|integer|min:0'];
    }
}
