import TablePagination from "@mui/material/TablePagination";
import { DataGrid, type GridRowSelectionModel, type GridSortModel } from "@mui/x-data-grid";
import { type HistoryQuery, type HistoryResult, historySorts, pageSizes } from "~/protocol/history";
import { colors } from "../../theme/theme";
import { useSay } from "../../words/text";
import { useNonce } from "../../request-context";
import { useColumns } from "./columns";
import { useAsked } from "./use-asked";

interface RunsGridProps {
  readonly history: HistoryResult;
  readonly asked: HistoryQuery;
  readonly loading: boolean;
  readonly selected: readonly string[];
  readonly onSelect: (ids: readonly string[]) => void;
}

const look = {
  bgcolor: colors.sheet,
  borderColor: colors.line,
  fontSize: "1rem",
  "& .MuiDataGrid-cell": { py: 1, display: "flex", alignItems: "center", lineHeight: 1.4 },
  "& .MuiDataGrid-columnHeaderTitle": { fontWeight: 650, color: colors.inkSoft },
  "& .MuiDataGrid-columnSeparator": { display: "none" },
} as const;

/** The runs of one page; sorted, filtered and paged by the server. What is selected stays so from page to page. */
export function RunsGrid({ history, asked, loading, selected, onSelect }: RunsGridProps) {
  const say = useSay();
  const { ask } = useAsked();
  const nonce = useNonce();
  const columns = useColumns(asked.result);
  const sorted = (model: GridSortModel) => {
    const [first] = model;
    const by = historySorts.find((one) => one === first?.field);
    ask(
      by && first?.sort
        ? { sort: by, order: first.sort === "asc" ? "up" : "down" }
        : { sort: null, order: null },
    );
  };
  const chosen: GridRowSelectionModel = { type: "include", ids: new Set(selected) };
  return (
    <>
      <DataGrid
        rows={[...history.rows]}
        columns={columns}
        loading={loading}
        label={say`Runs`}
        {...(nonce === undefined ? {} : { nonce })}
        hideFooter
        sortingMode="server"
        filterMode="server"
        disableColumnFilter
        disableColumnMenu
        disableRowSelectionOnClick
        checkboxSelection
        keepNonExistentRowsSelected
        disableRowSelectionExcludeModel
        rowSelectionModel={chosen}
        onRowSelectionModelChange={({ ids }) => onSelect([...ids].map(String))}
        // By one column or another: never by none.
        sortingOrder={["asc", "desc"]}
        sortModel={[{ field: asked.sort.by, sort: asked.sort.down ? "desc" : "asc" }]}
        onSortModelChange={sorted}
        getRowHeight={() => "auto"}
        sx={look}
      />
      {/* The server has cut the page out already: what turns it stands beside the table. */}
      <TablePagination
        component="div"
        count={history.total}
        page={asked.page * asked.size < history.total ? asked.page : 0}
        rowsPerPage={asked.size}
        rowsPerPageOptions={[...pageSizes]}
        onPageChange={(_event, page) => ask({ page: page === 0 ? null : String(page) })}
        onRowsPerPageChange={(event) => ask({ page: null, size: event.target.value })}
        labelRowsPerPage={say`Runs on a page`}
        labelDisplayedRows={({ from, to, count }) => say`${from} to ${to} of ${count}`}
        getItemAriaLabel={(type) => (type === "next" ? say`Next page` : say`Page before`)}
      />
    </>
  );
}
