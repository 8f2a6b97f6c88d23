<script lang="ts">
    import { PaginationNav } from 'flowbite-svelte';
    import { inFigures } from '../../state/numbers';

    /* Turning the pages of a list: back, on, or to one of those around. */
    type Props = { page: number; pages: number; onturn: (page: number) => void };
    let { page, pages, onturn }: Props = $props();
</script>

<div class="ml-auto flex items-center gap-2">
    <PaginationNav
        classes={{ active: 'bg-iris-wash text-iris font-semibold' }}
        currentPage={page}
        totalPages={pages}
        visiblePages={3}
        onPageChange={onturn}
        ariaLabel="Pages"
    >
        {#snippet prevContent()}← Previous{/snippet}
        {#snippet nextContent()}Next →{/snippet}
    </PaginationNav>
    {#if pages > 3}<span class="figures mini">of {inFigures(pages)}</span>{/if}
</div>
