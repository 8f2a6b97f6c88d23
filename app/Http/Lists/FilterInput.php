<?php

declare(strict_types=1);

namespace App\Http\Lists;

use Illuminate\Foundation\Http\FormRequest;

final class FilterInput extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['filter' => 'required|array'];
    }
}
