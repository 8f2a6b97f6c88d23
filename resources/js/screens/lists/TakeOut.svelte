<script lang="ts">
    import { Dropdown, DropdownItem } from 'flowbite-svelte';
    import type { Resources } from '../../api/client';
    import { toasts } from '../../state/toasts.svelte';

    /* The list as a file: as CSV, which the server sends as it reads, or as a workbook, which is made here of the same. */
    type Props = {
        type: Resources['TypeResource'];
        query: { search?: string; filter?: string; columns?: string };
    };
    let { type, query }: Props = $props();
    let busy = $state(false);
    const address = $derived(
        `/api/records/${type.name}/file?${new URLSearchParams(
            Object.entries({ search: query.search, filter: query.filter, columns: query.columns }).flatMap(([name, value]) =>
                value ? [[name, value]] : [],
            ),
        )}`,
    );

    async function workbook() {
        busy = true;
        try {
            const { saveWorkbook } = await import('./workbook');
            const answer = await fetch(address);
            if (!answer.ok) throw new Error('The list cannot be exported.');
            await saveWorkbook(await answer.text(), type.plural);
        } catch (thrown) {
            toasts.complain(thrown instanceof Error ? thrown.message : 'The list cannot be exported.');
        }
        busy = false;
    }
</script>

<button type="button" class="btn" disabled={busy}>{busy ? 'Writing…' : 'Export'}</button>
<Dropdown simple class="w-44 rounded-lg border border-edge bg-page shadow-lg">
    <DropdownItem href={address} download>CSV</DropdownItem>
    <DropdownItem onclick={workbook}>Excel workbook</DropdownItem>
</Dropdown>
