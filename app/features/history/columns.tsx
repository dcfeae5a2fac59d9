import Box from "@mui/material/Box";
import type { GridColDef } from "@mui/x-data-grid";
import { Link } from "react-router";
import type { HistoryRow, ResultName } from "~/protocol/history";
import { colors, fonts } from "../../theme/theme";
import { When } from "../../ui/when";
import { useSay } from "../../words/text";

/** What is shown of each run; of its results the one that is asked for, else the one that it was for. */
export function useColumns(result: ResultName | null): GridColDef<HistoryRow>[] {
  const say = useSay();
  return [
    {
      field: "title",
      headerName: say`Run`,
      flex: 1.6,
      minWidth: 220,
      renderCell: ({ row }) => (
        <Link to={`/runs/${row.id}`} style={{ color: colors.teal, fontWeight: 600 }}>
          {row.title}
        </Link>
      ),
    },
    {
      field: "result",
      headerName: result ? say`${result.name}` : say`Result`,
      flex: 1.2,
      minWidth: 256,
      align: "right",
      headerAlign: "right",
      renderCell: ({ row }) => (
        <Box component="span" sx={{ fontFamily: fonts.reading, textAlign: "right", py: 0.25 }}>
          {row.result ? say(row.result.shown) : "–"}
        </Box>
      ),
    },
    { field: "sample", headerName: say`Sample`, flex: 0.8, minWidth: 110 },
    {
      field: "method",
      headerName: say`Method`,
      flex: 1.3,
      minWidth: 180,
      valueGetter: (_, row) => row.methodTitle,
    },
    {
      field: "started",
      headerName: say`Begun`,
      width: 150,
      renderCell: ({ row }) => <When at={new Date(row.startedAt).toISOString()} />,
    },
    {
      field: "people",
      headerName: say`Person`,
      flex: 0.8,
      minWidth: 110,
      valueGetter: (_, row) => row.people || row.bench,
    },
    {
      field: "state",
      headerName: say`State`,
      flex: 0.9,
      minWidth: 140,
      renderCell: ({ row }) =>
        row.countersigned ? say`countersigned by ${row.countersigned}` : say(row.state),
    },
  ];
}
