<?php

declare(strict_types=1);

namespace App\Http\Outbound;

use Illuminate\Foundation\Http\FormRequest;

final class DifferenceInput extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['from' => 'required|integer', 'to' => 'nullable|integer'];
    }
}
